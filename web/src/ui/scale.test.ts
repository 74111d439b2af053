import { describe, expect, it } from 'vitest'

import type { Ladder, Rung } from '@/api/client'
import { onScale, rangeOf, ticks } from './scale'

const rung = (values: Partial<Rung>) =>
  ({ average: null, burst: null, noise: null, ceiling: null, dbu_offset: 0, ...values }) as Rung

describe('the scale of the ladder', () => {
  it('puts a digital level where its full scale stands as a voltage', () => {
    expect(onScale(rung({ dbu_offset: 10 }), -20)).toBe(-10)
    expect(onScale(rung({}), null)).toBeNull()
  })
  it('holds every level, with room above for words', () => {
    const ladder = {
      rungs: [rung({ average: -60, burst: -46, noise: -91 }), rung({ ceiling: 10 })],
    } as Ladder
    expect(rangeOf([ladder])).toEqual({ low: -100, high: 20 })
  })
  it('has a range for a track without sound', () => {
    expect(rangeOf([{ rungs: [rung({})] } as unknown as Ladder])).toEqual({ low: -120, high: 30 })
  })
  it('marks whole multiples', () => {
    expect(ticks(-45, 5, 20)).toEqual([-40, -20, 0])
  })
})
