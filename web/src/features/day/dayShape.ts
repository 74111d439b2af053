import type { Day, Holding } from '@/api/client'

/** How the line of the day is drawn: hours along the top, takes below them, then a row for each thing that runs out. */
export const DAY_LINE = { top: 20, takes: 24, row: 22, bar: 10 }

const order = { battery: 0, media: 1, jam: 2 }

export interface DayRow {
  readonly label: string
  readonly holdings: readonly Holding[]
}

/** One row for each battery, card and clock, those of one device together. */
export function dayRows(day: Day): DayRow[] {
  const rows = new Map<string, Holding[]>()
  for (const item of day.holdings) rows.set(item.label, [...(rows.get(item.label) ?? []), item])
  return [...rows.entries()]
    .map(([label, holdings]) => ({ label, holdings }))
    .filter(({ holdings }) => holdings.length > 1 || holdings.some((item) => item.usual_min !== null))
    .sort((one, other) => kind(one) - kind(other) || one.label.localeCompare(other.label))
}
const kind = (row: DayRow) => order[row.holdings[0]?.kind as keyof typeof order] ?? 3

/** From a minute of the day to a place on a line of this width. */
export const placeOf = (day: Day, width: number) => (minute: number) => {
  const span = Math.max(day.ends_min - day.begins_min, 1)
  return (Math.min(Math.max(minute - day.begins_min, 0), span) / span) * width
}

/** Full hours of a day, as many as there is room for. */
export function hours(day: Day, width: number): number[] {
  const step = 60 * Math.max(1, Math.ceil(((day.ends_min - day.begins_min) / 60) * (34 / width)))
  const first = Math.ceil(day.begins_min / step) * step
  const found: number[] = []
  for (let at = first; at < day.ends_min; at += step) found.push(at)
  return found
}
