import { expect, test } from 'vitest'

import type { Clock } from '@/api/client'
import { dayShape, STRIP, treeRows, type TimecodeDevice } from './clockShape'

const timecodeDevice = (device: string, gets: TimecodeDevice['gets'], giver = '') =>
  ({ device, gets, giver_id: giver, label: device }) as TimecodeDevice
const day = {
  device: 'box',
  free_runs: [
    { begins_min: 480, ends_min: 750, begins_frames: 0, apart_frames: 0.81, against: 'Bag', beyond_min: 646 },
    {
      begins_min: 750,
      ends_min: 1050,
      begins_frames: 0,
      apart_frames: 0.4,
      against: 'Bag',
      beyond_min: null,
    },
  ],
  unset_until_min: null,
} as unknown as Clock['days'][number]
const clock = {
  day_begins_min: 480,
  day_ends_min: 1050,
  limit_frames: 0.5,
  days: [day],
  timecode_devices: [
    timecodeDevice('camera', 'cable', 'box'),
    timecodeDevice('alone', 'none'),
    timecodeDevice('bag', 'master'),
    timecodeDevice('box', 'jam', 'bag'),
    timecodeDevice('one', 'jam', 'other'),
    timecodeDevice('other', 'jam', 'one'),
  ],
} as unknown as Clock

test('a source stands above what it feeds, and a circle still stands there', () => {
  expect(treeRows(clock).map((row) => [row.timecodeDevice.device, row.depth])).toEqual([
    ['bag', 0],
    ['box', 1],
    ['camera', 2],
    ['one', 0],
    ['other', 1],
    ['alone', 0],
  ])
})

test('the saw touches the ground at each jam and is hatched beyond the limit', () => {
  const shape = dayShape(clock, day, 570)
  expect(shape.jams.map(({ x }) => x)).toEqual([0, 270])
  expect(shape.saw.split(' ')[0]).toBe(`0,${STRIP.floor}`)
  expect(shape.beyond).toHaveLength(1)
  expect(shape.beyond[0]).toMatch(/^166,33 /)
})
