import { describe, expect, it } from 'vitest'

import type { Ladder, Rung } from '@/api/client'
import { LINE_PX, widthOf } from './ladderLabels'
import { BOX, ladderRows, ladderShape, ladderWords, shortened } from './ladderShape'

const rung = (values: Partial<Rung>): Rung =>
  ({
    kind: 'input',
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
    const floors = changing.labels.filter(({ kind }) => kind === 'floor-name')
    expect(floors.map(({ text }) => text)).toEqual(['room', 'output hiss'])
  })

  it('lays no words over others, and keeps them all inside', () => {
    // Every stage clips or has a burst over, at levels that make their words want the same place; a noise begins at each.
    for (const width of [620, 800, 1100])
      for (const level of [-100, -32, -28, -20, -12, 0]) {
        const rungs = [0, 1, 2, 3, 4, 5, 6].map((at) =>
          rung({
            noise: level + at,
            ruled_by: `noise in pauses of stage ${at}`,
            over_db: at % 2 ? 4.5 : 0,
            burst_over_db: 12.8,
          }),
        )
        const track = ladder(...rungs, rung({ unit: 'dBFS', noise: level, ruled_by: 'room' }))
        const { labels } = ladderShape(track, width, { label: 'as it was', ladder: track })
        expect(labels.map(({ text }) => text)).toContain('as it was')
        expect(labels.filter(({ kind }) => kind === 'clips').length).toBeGreaterThan(0)
        for (const [index, one] of labels.entries()) {
          expect(one.x).toBeGreaterThanOrEqual(BOX.left)
          expect(one.x + widthOf(one.text)).toBeLessThanOrEqual(width - BOX.right + 0.001)
          for (const two of labels.slice(index + 1))
            expect(
              Math.abs(one.y - two.y) >= LINE_PX ||
                one.x + widthOf(one.text) <= two.x ||
                two.x + widthOf(two.text) <= one.x,
              `${one.text} over ${two.text}`,
            ).toBe(true)
        }
      }
  })
})

describe('the upright ladder', () => {
  const track = ladder(
    rung({ over_db: 4 }),
    rung({ average: null }),
    rung({ unit: 'dBFS', dbu_offset: -10.5 }),
  )
  const rows = ladderRows(track, 350, { label: 'as it was', ladder: track })

  it('puts stages below each other, and louder things farther right', () => {
    const tops = rows.rows.map(({ top }) => top)
    expect(tops).toEqual([...tops].sort((a, b) => a - b))
    const [first, second] = rows.rows
    expect(first?.quiet).toBeLessThan(first?.average ?? 0)
    expect(first?.average).toBeLessThan(first?.peak ?? 0)
    expect(second?.average).toBeNull()
    expect(rows.rows.every(({ other }, index) => other === rows.rows[index]?.average)).toBe(true)
  })

  it('stays within its width', () => {
    const levels = rows.rows.flatMap(({ quiet, burst, floor }) => [quiet, burst, floor])
    for (const at of levels) if (at !== null) expect(at >= 0 && at <= 350).toBe(true)
    expect(rows.band.left).toBeLessThan(rows.band.right)
  })
})

describe('words of a ladder', () => {
  it('says every stage, and where it clips', () => {
    const words = ladderWords(ladder(rung({ label: 'Boom' }), rung({ label: 'Camera B', over_db: 14.12 })))
    expect(words).toBe('Ladder of Camera B, track L: Boom −20 dBu; Camera B −20 dBu, over by 14.1 dB')
  })
  it('shortens what does not fit and says so with dots', () => {
    expect(shortened('mic socket L', 120)).toBe('mic socket L')
    expect(shortened('8 m XLR + two XLR to XLR-5 (L)', 120)).toBe('8 m XLR + two X…')
    expect(shortened('abcdef', 1).length).toBe(3)
  })
})
