import type { Ladder, Rung } from '@/api/client'

/** Level of a rung on the common dBu scale of the picture. */
export function onScale(rung: Rung, value: number | null): number | null {
  return value === null ? null : value + (rung.dbu_offset ?? 0)
}

/** Lowest and highest dBu that the picture shows, at whole tens with room for words. */
export function rangeOf(ladders: readonly Ladder[]): { low: number; high: number } {
  const values: number[] = []
  for (const rung of ladders.flatMap((ladder) => ladder.rungs)) {
    for (const value of [rung.average, rung.burst, rung.noise, rung.ceiling]) {
      const shown = onScale(rung, value)
      if (shown !== null) values.push(shown)
    }
  }
  if (!values.length) return { low: -120, high: 30 }
  const high = Math.ceil((Math.max(...values) + 8) / 10) * 10
  const low = Math.floor((Math.min(...values) - 6) / 10) * 10
  return { low: Math.max(low, -150), high }
}

/** Whole multiples of `by` between two levels. */
export function ticks(low: number, high: number, by: number): number[] {
  const found: number[] = []
  for (let level = Math.ceil(low / by) * by; level <= high; level += by) found.push(level)
  return found
}
