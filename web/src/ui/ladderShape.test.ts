import { describe, expect, it } from 'vitest'

import type { Ladder, Rung } from '@/api/client'
import { BOX, ladderShape, ladderWords, shortened } from './ladderShape'

const rung = (values: Partial<Rung>): Rung =>
  ({
    place: 'input',
    label: 'Stage',
    head: 'Stage',
    tail: '',
    detail: '',
    device: 'd',
    unit: 'dBu',
    quiet: -40,
    average: -20,
    peak: 0,
    burst: 10,
    noise: -90,
    ruled_by: 'room',
    ceiling: null,
    over_db: 0,
    dbu_offset: 0,
    controls: [],
    ...values,
  }) as Rung

const ladder = (...rungs: Rung[]) =>
  ({
    title: 'Camera B, track L',
    rungs,
    target: { label: 'film', words: '', low_dbfs: -20, high_dbfs: -12, of_peaks: false },
  }) as unknown as Ladder

const points = (text: string) =>
  text.split(' ').map((point) => point.split(',').map(Number) as [number, number])

describe('the shapes of a ladder', () => {
  const shape = ladderShape(
    ladder(rung({}), rung({ average: -30 }), rung({ unit: 'dBFS', dbu_offset: -10.5 })),
    1100,
  )

  it('puts stages side by side over the whole width', () => {
    expect(shape.columns.map(({ x }) => Math.round(x))).toEqual([46, 379, 713])
    expect(shape.columns[0]!.wide * 3).toBeCloseTo(1100 - BOX.left - BOX.right)
  })

  it('puts louder things higher, and keeps all of them inside', () => {
    expect(shape.y(0)).toBeLessThan(shape.y(-20))
    expect(shape.y(500)).toBe(BOX.top)
    expect(shape.y(-500)).toBe(BOX.top + BOX.height)
  })

  it('draws the ribbon there along the peaks and back along the quiet words', () => {
    const outline = points(shape.whole)
    expect(outline).toHaveLength(12)
    const [there, back] = [outline.slice(0, 6), outline.slice(6)]
    expect(there.map(([x]) => x)).toEqual([...there.map(([x]) => x)].sort((a, b) => a - b))
    expect(back.map(([x]) => x)).toEqual([...there.map(([x]) => x)].reverse())
    there.forEach(([, y], index) => expect(y).toBeLessThan(back[back.length - 1 - index]![1]))
  })

  it('is flat across a stage and slopes only between stages', () => {
    const line = points(shape.average)
    expect(line[0]![1]).toBe(line[1]![1])
    expect(line[1]![1]).not.toBe(line[2]![1])
  })

  it('marks dBFS where full scale stands as a voltage', () => {
    const zero = shape.right.find(({ level }) => level === 0)
    expect(zero?.at).toBeCloseTo(shape.y(-10.5))
    expect(shape.band.top).toBeCloseTo(shape.y(-22.5))
    expect(shape.band.bottom).toBeGreaterThan(shape.band.top)
  })

  it('leaves out stages without sound instead of drawing them at the floor', () => {
    const gap = ladderShape(
      ladder(rung({}), rung({ average: null, peak: null, burst: null, quiet: null }), rung({})),
      900,
    )
    expect(points(gap.average)).toHaveLength(4)
    const silent = ladderShape(ladder(rung({ average: null, peak: null, burst: null, quiet: null })), 900)
    expect(silent.whole).toBe('')
  })

  it('names a noise only where it begins to rule', () => {
    const changing = ladderShape(
      ladder(
        rung({}),
        rung({}),
        rung({ ruled_by: 'output hiss' }),
        rung({ ruled_by: 'output hiss', noise: null }),
      ),
      900,
    )
    expect(changing.floorChanges.map(({ text }) => text)).toEqual(['room', 'output hiss'])
  })

  it('writes the name of the target where no noise is written', () => {
    // A track of which the noise begins to rule just below the band of the target: their words lay over each other.
    for (const noise of [-100, -32, -28, -24, -20, -16, -12]) {
      const last = rung({ unit: 'dBFS', dbu_offset: 0, noise, ruled_by: 'noise in pauses' })
      const { targetWords, floorChanges, band } = ladderShape(ladder(rung({}), rung({}), rung({}), last), 600)
      expect(Math.abs(targetWords - floorChanges.at(-1)!.y), `noise ${noise}`).toBeGreaterThanOrEqual(15)
      expect(Math.abs(targetWords - band.bottom)).toBeLessThan(60)
    }
  })
})

describe('words of a ladder', () => {
  it('says every stage, and where it clips', () => {
    const words = ladderWords(ladder(rung({ label: 'Boom' }), rung({ label: 'Camera B', over_db: 14.12 })))
    expect(words).toBe('Ladder of Camera B, track L: Boom −20 dBu; Camera B −20 dBu, over by 14.1 dB')
  })
  it('shortens what does not fit and says so with dots', () => {
    expect(shortened('mic socket L', 120)).toBe('mic socket L')
    expect(shortened('8 m XLR + two XLR to XLR-5 (L)', 120)).toBe('8 m XLR + two XL…')
    expect(shortened('abcdef', 1).length).toBe(3)
  })
})
