/** Words in a picture, placed so that none lie over each other. */

export const LETTER_PX = 7.1 // about, of the words in the picture
export const LINE_PX = 16 // baselines that are so far apart do not touch

/** Words that want a place: `x` is their left end, `ys` are baselines, the best first. */
export interface Wanted {
  kind: 'clips' | 'burst-clips' | 'burst-name' | 'target-name' | 'floor-name' | 'other-name'
  text: string
  x: number
  ys: readonly number[]
}

export interface PlacedLabel {
  kind: Wanted['kind']
  text: string
  x: number
  y: number
}

interface Room {
  left: number
  right: number
  top: number
  bottom: number
}

export const widthOf = (text: string) => text.length * LETTER_PX

const touches = (a: PlacedLabel, b: PlacedLabel) =>
  Math.abs(a.y - b.y) < LINE_PX && a.x < b.x + widthOf(b.text) && b.x < a.x + widthOf(a.text)

/** As many of the words as have a place, those that matter most first; the rest is read in the account. */
export function placeLabels(wanted: readonly Wanted[], room: Room): PlacedLabel[] {
  const placed: PlacedLabel[] = []
  for (const { kind, text, x, ys } of wanted) {
    const left = Math.max(room.left, Math.min(x, room.right - widthOf(text)))
    const free = ys
      .map((y) => ({ kind, text, x: left, y: Math.max(room.top + 12, Math.min(y, room.bottom - 4)) }))
      .find((label) => !placed.some((other) => touches(label, other)))
    if (free) placed.push(free)
  }
  return placed
}
