import type { Ladder, Rung } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { onScale, rangeOf, ticks } from './scale'

/** Margins and height of the picture in px. */
export const BOX = { left: 46, right: 54, top: 26, height: 270 } as const

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

/** The shapes of a ladder for a picture of that width: places and outlines, no new figures. */
export function ladderShape(ladder: Ladder, width: number) {
  const { low, high } = rangeOf(ladder)
  const fullScale = ladder.rungs.at(-1)?.dbu_offset ?? 0
  const wide = (width - BOX.left - BOX.right) / Math.max(1, ladder.rungs.length)

  /** Height in the picture of a dBu level; what lies outside stays at the edge. */
  const y = (level: number) =>
    BOX.top + ((high - Math.min(Math.max(level, low), high)) / (high - low)) * BOX.height

  const columns: Column[] = ladder.rungs.map((rung, index) => ({
    rung,
    x: BOX.left + index * wide,
    wide,
    quiet: onScale(rung, rung.quiet),
    average: onScale(rung, rung.average),
    peak: onScale(rung, rung.peak),
    burst: onScale(rung, rung.burst),
    ceiling: onScale(rung, rung.ceiling),
    floor: onScale(rung, rung.noise),
  }))

  /** An edge through all stages that have sound: flat across a stage, sloping between stages. */
  function edge(level: Level): string[] {
    const slope = Math.min(9, wide / 6)
    return columns.flatMap((item) => {
      const value = item[level]
      if (value === null) return []
      return [`${item.x + slope},${y(value)}`, `${item.x + item.wide - slope},${y(value)}`]
    })
  }
  const ribbon = (upper: Level, lower: Level) => [...edge(upper), ...edge(lower).reverse()].join(' ')

  const loud = columns.find(({ burst }) => burst !== null)
  return {
    columns,
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
    band: { top: y(ladder.target.high_dbfs + fullScale), bottom: y(ladder.target.low_dbfs + fullScale) },
    /** Where another noise begins to rule. */
    floorChanges: columns.filter(
      (item, index) =>
        item.floor !== null && item.rung.ruled_by && item.rung.ruled_by !== columns[index - 1]?.rung.ruled_by,
    ),
  }
}

/** What fits under a column of that width; the whole of it shows on pointing. */
export function shortened(text: string, wide: number): string {
  const most = Math.max(3, Math.floor(wide / 6.9))
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
