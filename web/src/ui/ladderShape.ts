import type { Ladder, Rung } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { LETTER_PX, placeLabels, widthOf, type Wanted } from './ladderLabels'
import { onScale, rangeOf, ticks } from './scale'

/** The same chain at other levels, on the same picture: told apart by its dashes, not by colour. */
export interface Overlay {
  label: string
  ladder: Ladder
}

/** Margins and height of the picture in px. */
export const BOX = { left: 46, right: 54, top: 26, height: 270 } as const

const SEEN_DB = 0.1 // less is printed as nothing

/** One stage as it is drawn: where it stands, and its levels on the common dBu scale. */
export interface Column {
  rung: Rung
  x: number
  wide: number
  quiet: number | null
  average: number | null
  peak: number | null
  burst: number | null
  ceiling: number | null
  floor: number | null
}

type Level = 'quiet' | 'average' | 'peak' | 'burst'

/** Of these stages, those at which another noise begins to rule. */
const newNoises = (columns: readonly Column[]) =>
  columns.filter(
    ({ rung, floor }, index) =>
      floor !== null && rung.ruled_by && rung.ruled_by !== columns[index - 1]?.rung.ruled_by,
  )

/**
 * The shapes of a ladder, and of one other, for a picture of that width: places and outlines, no new figures.
 *
 * `beside`: a ladder in a picture of its own, which is to have the same scale.
 */
export function ladderShape(ladder: Ladder, width: number, other?: Overlay, beside?: Ladder) {
  const { low, high } = rangeOf([ladder, other?.ladder, beside].filter((item) => item !== undefined))
  const fullScale = ladder.rungs.at(-1)?.dbu_offset ?? 0
  const most = Math.max(1, ladder.rungs.length, other?.ladder.rungs.length ?? 0)
  const right = width - BOX.right
  const wide = (right - BOX.left) / most

  /** Height in the picture of a dBu level; what lies outside stays at the edge. */
  const y = (level: number) =>
    BOX.top + ((high - Math.min(Math.max(level, low), high)) / (high - low)) * BOX.height

  /** Ladders of unlike length end together, at the track. */
  const columnsOf = (rungs: readonly Rung[]): Column[] =>
    rungs.map((rung, index) => ({
      rung,
      x: BOX.left + (most - rungs.length + index) * wide,
      wide,
      quiet: onScale(rung, rung.quiet),
      average: onScale(rung, rung.average),
      peak: onScale(rung, rung.peak),
      burst: onScale(rung, rung.burst),
      ceiling: onScale(rung, rung.ceiling),
      floor: onScale(rung, rung.noise),
    }))
  const columns = columnsOf(ladder.rungs)

  /** An edge through all stages that have sound: flat across a stage, sloping between stages. */
  function edge(level: Level, through = columns): string[] {
    const slope = Math.min(9, wide / 6)
    return through.flatMap((item) => {
      const value = item[level]
      if (value === null) return []
      return [`${item.x + slope},${y(value)}`, `${item.x + item.wide - slope},${y(value)}`]
    })
  }
  const ribbon = (upper: Level, lower: Level) => [...edge(upper), ...edge(lower).reverse()].join(' ')

  // Both end on one scale of dBFS, whatever voltage their full scale stands for.
  const otherRungs = other?.ladder.rungs ?? []
  const otherColumns = columnsOf(
    otherRungs.map((rung) => (rung === otherRungs.at(-1) ? { ...rung, dbu_offset: fullScale } : rung)),
  )
  const band = { top: y(ladder.target.high_dbfs + fullScale), bottom: y(ladder.target.low_dbfs + fullScale) }

  /** All words of the picture, what ruins a take first. */
  function words(): Wanted[] {
    const middle = (text: string, { x }: Column) => x + wide / 2 - widthOf(text) / 2
    const clips = columns.flatMap((item): Wanted[] => {
      const { rung, peak, burst } = item
      if (rung.over_db && peak !== null) {
        const text = `clips by ${formatLevel(rung.over_db, 1)} dB`
        return [{ kind: 'clips', text, x: middle(text, item), ys: [y(peak) - 7, y(peak) - 24] }]
      }
      if ((rung.burst_over_db ?? 0) < SEEN_DB || burst === null) return []
      const text = `a burst: ${formatLevel(rung.burst_over_db, 1)} dB over`
      return [{ kind: 'burst-clips', text, x: middle(text, item), ys: [y(burst) - 7, y(burst) - 24] }]
    })
    const target = ladder.target.label
    const targets: Wanted[] = [
      {
        kind: 'target-name',
        text: target,
        x: right - 6 - widthOf(target),
        ys: [band.bottom + 14, band.top - 5, band.top + 14, band.bottom + 30],
      },
    ]
    const others = otherColumns
      .filter(({ average }) => average !== null)
      .slice(-2, -1)
      .map(({ x, average }): Wanted => {
        const at = y(average ?? 0)
        return {
          kind: 'other-name',
          text: other?.label ?? '',
          x: x + 8,
          ys: [at - 6, at + 16, at - 22, at + 32],
        }
      })
    const loud = columns.find(({ burst }) => burst !== null)
    const bursts: Wanted[] = loud
      ? [{ kind: 'burst-name', text: 'burst', x: loud.x + 12, ys: [y(loud.burst ?? high) - 5] }]
      : []
    const floors = newNoises(columns).map(({ rung, x, floor }): Wanted => {
      const at = y(floor ?? low)
      return { kind: 'floor-name', text: rung.ruled_by, x: x + 5, ys: [at + 16, at - 6, at + 32] }
    })
    return [...clips, ...targets, ...others, ...floors, ...bursts]
  }

  return {
    columns,
    y,
    whole: ribbon('peak', 'quiet'),
    deep: ribbon('average', 'quiet'),
    average: edge('average').join(' '),
    burst: edge('burst').join(' '),
    other: edge('average', otherColumns).join(' '),
    /** Ticks of both scales: dBu on the left; on the right dBFS of the track, where its full scale stands. */
    left: ticks(low, high, 20).map((level) => ({ level, at: y(level) })),
    right: ticks(low - fullScale, 0, 20)
      .filter((level) => level + fullScale <= high)
      .map((level) => ({ level, at: y(level + fullScale) })),
    band,
    labels: placeLabels(words(), { left: BOX.left, right, top: 0, bottom: BOX.top + BOX.height }),
  }
}

/** Margins and heights of the upright picture in px. */
export const ROWS = { left: 6, right: 6, top: 26, row: 62, bar: 20 } as const

const UNIT_PX = 50 // what the unit of a scale takes at its right end

/** The same for a narrow picture: one row for each stage, its level from left to right. */
export function ladderRows(ladder: Ladder, width: number, other?: Overlay, beside?: Ladder) {
  const { low, high } = rangeOf([ladder, other?.ladder, beside].filter((item) => item !== undefined))
  const fullScale = ladder.rungs.at(-1)?.dbu_offset ?? 0
  const x = (level: number) =>
    ROWS.left +
    ((Math.min(Math.max(level, low), high) - low) / (high - low)) * (width - ROWS.left - ROWS.right)
  const at = (rung: Rung, level: number | null) => (level === null ? null : x(onScale(rung, level) ?? low))
  const others = other?.ladder.rungs ?? []
  const rows = ladder.rungs.map((rung, index) => {
    // Ladders of unlike length end together, at the track.
    const twin = others[others.length - ladder.rungs.length + index]
    return {
      rung,
      top: ROWS.top + index * ROWS.row,
      quiet: at(rung, rung.quiet),
      average: at(rung, rung.average),
      peak: at(rung, rung.peak),
      burst: at(rung, rung.burst),
      ceiling: at(rung, rung.ceiling),
      floor: at(rung, rung.noise),
      other: twin ? at(twin.unit === 'dBFS' ? { ...twin, dbu_offset: fullScale } : twin, twin.average) : null,
    }
  })
  return {
    rows,
    height: ROWS.top + ladder.rungs.length * ROWS.row + 22,
    above: ticks(low, high, 20)
      .map((level) => ({ level, at: x(level) }))
      .filter(({ at: place }) => place < width - UNIT_PX),
    below: ticks(low - fullScale, 0, 20)
      .filter((level) => level + fullScale <= high)
      .map((level) => ({ level, at: x(level + fullScale) }))
      .filter(({ at: place }) => place < width - UNIT_PX),
    band: { left: x(ladder.target.low_dbfs + fullScale), right: x(ladder.target.high_dbfs + fullScale) },
  }
}

/** What fits under a column of that width; the whole of it shows on pointing. */
export function shortened(text: string, wide: number): string {
  const most = Math.max(3, Math.floor(wide / LETTER_PX))
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text
}

/** The picture in words, for who cannot see it. */
export function ladderWords(ladder: Ladder): string {
  const stages = ladder.rungs.map((rung) => {
    const over = rung.over_db
      ? `, over by ${formatLevel(rung.over_db, 1)} dB`
      : rung.burst_over_db
        ? `, a burst over by ${formatLevel(rung.burst_over_db, 1)} dB`
        : ''
    return `${rung.label} ${formatLevel(rung.average)} ${rung.unit}${over}`
  })
  return `Ladder of ${ladder.title}: ${stages.join('; ')}`
}
