import type { Clock } from '@/api/client'

export type TimecodeDevice = Clock['timecode_devices'][number]
type ClockDay = Clock['days'][number]

/** A row of the tree: how deep it hangs, and the day of what runs alone. */
export interface TreeRow {
  readonly timecodeDevice: TimecodeDevice
  readonly depth: number
  readonly day: ClockDay | undefined
}

/** Givers first, each with what hangs on it below; what nobody gives time to stands at the end. */
export function treeRows(clock: Clock): TreeRow[] {
  const rows: TreeRow[] = []
  const placed = new Set<string>()
  const hang = (timecodeDevice: TimecodeDevice, depth: number) => {
    if (placed.has(timecodeDevice.device)) return
    placed.add(timecodeDevice.device)
    rows.push({
      timecodeDevice,
      depth,
      day: clock.days.find(({ device }) => device === timecodeDevice.device),
    })
    for (const other of clock.timecode_devices)
      if (other.giver_id === timecodeDevice.device) hang(other, depth + 1)
  }
  for (const timecodeDevice of clock.timecode_devices)
    if (timecodeDevice.gets === 'master') hang(timecodeDevice, 0)
  // A circle of jams hangs on nobody: its first one stands for it.
  for (const timecodeDevice of clock.timecode_devices) if (timecodeDevice.giver_id) hang(timecodeDevice, 0)
  for (const timecodeDevice of clock.timecode_devices) hang(timecodeDevice, 0)
  return rows
}

/** How the day is drawn: from left to right, its limit as a line across. */
export const STRIP = { height: 58, floor: 50, top: 16 }

export interface DayShape {
  readonly limit: number
  readonly saw: string
  readonly beyond: readonly string[]
  readonly jams: readonly { readonly x: number; readonly at: number }[]
  readonly unset: number | null
}

export const along = (clock: Clock, minute: number, width: number) =>
  ((minute - clock.day_begins_min) / (clock.day_ends_min - clock.day_begins_min)) * width

/** The error over a day as a saw: it grows from each jam to the next; what lies beyond the limit is an area of its own. */
export function dayShape(clock: Clock, day: ClockDay, width: number): DayShape {
  const most = Math.max(2 * clock.limit_frames, ...day.free_runs.map((freeRun) => freeRun.apart_frames))
  const y = (frames: number) => STRIP.floor - ((STRIP.floor - STRIP.top) * frames) / most
  const x = (minute: number) => Math.min(Math.max(along(clock, minute, width), 0), width)
  const limit = y(clock.limit_frames)
  return {
    limit,
    saw: day.free_runs
      .map(
        (freeRun) =>
          `${x(freeRun.begins_min)},${y(freeRun.begins_frames)} ${x(freeRun.ends_min)},${y(freeRun.apart_frames)} ${x(freeRun.ends_min)},${y(0)}`,
      )
      .join(' '),
    beyond: day.free_runs.flatMap(({ beyond_min: from, ends_min: end, apart_frames: apart }) =>
      from === null ? [] : [`${x(from)},${limit} ${x(end)},${y(apart)} ${x(end)},${limit}`],
    ),
    jams: day.free_runs.map((freeRun) => ({ x: x(freeRun.begins_min), at: freeRun.begins_min })),
    unset: day.unset_until_min === null ? null : x(day.unset_until_min),
  }
}
