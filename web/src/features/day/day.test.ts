import { describe, expect, it } from 'vitest'

import type { Day, Log, LogEntry } from '@/api/client'
import { overlaid } from '@/composables/useLogbook'
import { counted } from '@/format/time'
import { dayRows, hours, placeOf } from './dayShape'

const holding = (label: string, kind: string, begins_min: number, usual_min: number | null) => ({
  ...{ label, kind, device: label, begins_min, ends_min: 1000, usual_min, least_min: usual_min },
})
const DAY = { begins_min: 480, ends_min: 1080, holdings: [] as unknown[] }

describe('the line of the day', () => {
  it('draws a row for each thing that runs out, batteries first, and none for what outlasts the day', () => {
    const holdings = [
      holding('Box, timecode', 'jam', 480, 700),
      holding('Cam, card', 'media', 480, null),
      holding('Pack, battery', 'battery', 480, 750),
      holding('Pack, battery', 'battery', 750, null),
    ]
    const rows = dayRows({ ...DAY, holdings } as unknown as Day)
    expect(rows.map(({ label, holdings: all }) => [label, all.length])).toEqual([
      ['Pack, battery', 2],
      ['Box, timecode', 1],
    ])
  })

  it('keeps what lies outside of the day at its edges', () => {
    const at = placeOf(DAY as unknown as Day, 600)
    expect([at(480), at(780), at(2000), at(0)]).toEqual([0, 300, 600, 0])
    expect(hours(DAY as unknown as Day, 600)).toEqual([480, 540, 600, 660, 720, 780, 840, 900, 960, 1020])
    expect(hours(DAY as unknown as Day, 170)).toEqual([480, 600, 720, 840, 960])
  })
})

const LOG = {
  ...{ takes: [], running: '', next: { slate: '12C', number: 4, label: '12C-4' } },
  next_set_up: { slate: '12D' },
  set_ups_to_come: [{ slate: '12D' }, { slate: '12E' }],
} as unknown as Log
const tap = (act: LogEntry['act'], more: Partial<LogEntry> = {}) =>
  ({ id: act, made: '2026-11-28T10:00:00Z', act, take: 't', ...more }) as LogEntry

describe('taps that are on their way', () => {
  it('stand in the log as they will', () => {
    const rolled = overlaid(LOG, [tap('roll', { slate: '12C', number: 4 }), tap('note', { text: 'plane' })])
    expect([rolled.running, rolled.next.label, rolled.takes[0]?.label]).toEqual(['t', '12C-5', '12C-4'])
    expect(rolled.takes[0]?.notes.map(({ text }) => text)).toEqual(['plane'])
    const over = overlaid(rolled, [tap('cut'), tap('status', { status: 'circled' }), tap('strike')])
    expect([over.running, over.takes[0]?.status, over.takes[0]?.struck]).toEqual(['', 'circled', true])
    expect(overlaid(over, [tap('strike', { text: 'back' })]).takes[0]?.struck).toBe(false)
  })

  it('leave the set-ups that are still to come', () => {
    const rolled = overlaid(LOG, [tap('roll', { slate: '12D', number: 1 })])
    expect(rolled.next_set_up.slate).toBe('12E')
  })

  it('say nothing of a take that nobody has begun', () => {
    expect(overlaid(LOG, [tap('cut'), tap('note', { text: 'x' })])).toEqual(LOG)
  })
})

it('counts seconds as one reads them beside a take', () => {
  expect([counted(0), counted(47), counted(65), counted(3725)]).toEqual(['0:00', '0:47', '1:05', '1:02:05'])
})
