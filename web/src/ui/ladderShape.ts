import type { Ladder, Rung } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { onScale, rangeOf, ticks } from './scale'

/** Another ladder on the same picture, told apart by its mark and its dashes, not by colour. */
export interface Overlay {
  label: string
  mark: '○' | '△'
  ladder: Ladder
}

/** Margins and height of the picture in px. */
export const BOX = { left: 46, right: 54, top: 26, height: 270 } as const

const LETTER_PX = 6.9 // about, of the words in the picture
const LINE_PX = 15 // words that are so far apart do not touch

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

/** The shapes of a ladder, and of others beside it, for a picture of that width: places and outlines, no new figures. */
export function ladderShape(ladder: Ladder, width: number, others: readonly Overlay[] = []) {
  const { low, high } = rangeOf([ladder, ...others.map((other) => other.ladder)])
  const fullScale = ladder.rungs.at(-1)?.dbu_offset ?? 0
  const most = Math.max(1, ladder.rungs.length, ...others.map((other) => other.ladder.rungs.length))
  const wide = (width - BOX.left - BOX.right) / most

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

  const overlays = others.map(({ label, mark, ladder: other }) => {
    // Both end on one scale of dBFS, whatever voltage their full scale stands for.
    const last = other.rungs.at(-1)
    const through = columnsOf(last ? [...other.rungs.slice(0, -1), { ...last, dbu_offset: fullScale }] : [])
    return {
      label,
      mark,
      average: edge('average', through).join(' '),
      peak: edge('peak', through).join(' '),
      marks: through.flatMap(({ x, average, floor }) =>
        [average, floor].flatMap((level) => (level === null ? [] : [{ x: x + wide / 2, y: y(level) }])),
      ),
    }
  })

  /** Where another noise begins to rule. */
  const floorChanges = columns.flatMap((item, index) =>
    item.floor !== null && item.rung.ruled_by && item.rung.ruled_by !== columns[index - 1]?.rung.ruled_by
      ? [{ text: item.rung.ruled_by, x: item.x + 5, y: y(item.floor) + 16 }]
      : [],
  )
  const band = { top: y(ladder.target.high_dbfs + fullScale), bottom: y(ladder.target.low_dbfs + fullScale) }

  /** The name of the target: below its band, above it, or in it, where it is farthest from other words at the track. */
  function targetWords(): number {
    const last = columns.at(-1)
    const left = width - BOX.right - 6 - ladder.target.label.length * LETTER_PX
    const there = floorChanges
      .filter(({ text, x }) => x + text.length * LETTER_PX > left)
      .map((word) => word.y)
    if (last?.rung.over_db && last.peak !== null) there.push(y(last.peak) - 7)
    else if (last?.rung.burst_over_db && last.burst !== null) there.push(y(last.burst) - 7)
    const room = (at: number) => Math.min(LINE_PX, ...there.map((other) => Math.abs(other - at)))
    const places = [band.bottom + 14, band.top - 5, band.top + 14]
    return places.reduce((best, at) => (room(at) > room(best) ? at : best))
  }

  const loud = columns.find(({ burst }) => burst !== null)
  return {
    columns,
    overlays,
    y,
    burstWords: loud && { x: loud.x + 12, y: y(loud.burst ?? high) - 5 },
    whole: ribbon('peak', 'quiet'),
    deep: ribbon('average', 'quiet'),
    average: edge('average').join(' '),
    burst: edge('burst').join(' '),
    /** Ticks of both scales: dBu on the left; on the right dBFS of the track, where its full scale stands. */
    left: ticks(low, high, 20).map((level) => ({ level, at: y(level) })),
    right: ticks(low - fullScale, 0, 20)
      .filter((level) => level + fullScale <= high)
      .map((level) => ({ level, at: y(level + fullScale) })),
    band,
    targetWords: targetWords(),
    floorChanges,
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
