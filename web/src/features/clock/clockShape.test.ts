import { expect, test } from 'vitest'

import type { Clock } from '@/api/client'
import { dayShape, STRIP, treeRows, type Keeper } from './clockShape'

const keeper = (device: string, gets: Keeper['gets'], giver = '') =>
  ({ device, gets, giver_id: giver, label: device }) as Keeper
const day = {
  device: 'box',
  spells: [
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
  keepers: [
    keeper('camera', 'cable', 'box'),
    keeper('alone', 'none'),
    keeper('bag', 'master'),
    keeper('box', 'jam', 'bag'),
    keeper('one', 'jam', 'other'),
    keeper('other', 'jam', 'one'),
  ],
} as unknown as Clock

test('a source stands above what it feeds, and a circle still stands there', () => {
  expect(treeRows(clock).map((row) => [row.keeper.device, row.depth])).toEqual([
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
