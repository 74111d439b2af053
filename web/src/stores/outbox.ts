import { ref } from 'vue'

/**
 * What somebody did and the program has not answered yet: edits of a plan, marks of a walk, clips moved by hand. It is kept
 * until the program has said yes or no to it, over a reload too, and shared by the windows of a browser.
 */
export interface Kept {
  readonly box: string // what it is done to: `plan-` and a job, `walk-` and a walk, `clips-` and a job
  readonly id: string // of two under one id the later one counts
  readonly order: number // of two the lesser was made first
}

const start = (box: string) => `tidy-${box}-`
/** Each in a place of its own: none writes over what another window keeps. */
const key = (item: Kept) => start(item.box) + item.id
const memory = new Map<string, string>() // of a browser that keeps nothing: for as long as the page stands
const changes = ref(0) // by this window and the others of this browser: whoever shows what is kept shows it anew
if (typeof window !== 'undefined') window.addEventListener('storage', () => (changes.value += 1))

function stored(): [string, string][] {
  try {
    const names = [...Array(localStorage.length).keys()].map((at) => localStorage.key(at) ?? '')
    return names.map((name) => [name, localStorage.getItem(name) ?? ''])
  } catch {
    return []
  }
}

/** What a box holds, the oldest first. */
export function kept<T extends Kept>(box: string): T[] {
  void changes.value
  return [...stored(), ...memory]
    .filter(([name, text]) => name.startsWith(start(box)) && text)
    .map(([, text]) => JSON.parse(text) as T)
    .sort((one, other) => one.order - other.order)
}

/** Kept until it is dropped; one that is kept already is replaced. */
export function put<T extends Kept>(item: T) {
  try {
    localStorage.setItem(key(item), JSON.stringify(item))
  } catch {
    memory.set(key(item), JSON.stringify(item))
  }
  changes.value += 1
}

/** Answered. What has taken its place meanwhile stays. */
export function drop(item: Kept) {
  const stands = kept(item.box).find(({ id }) => id === item.id)
  if (stands?.order !== item.order) return
  memory.delete(key(item))
  try {
    localStorage.removeItem(key(item))
  } catch {
    // It was kept in memory alone.
  }
  changes.value += 1
}

let last = 0

/** Later than every one before, in this window and, as far as the clock goes, in the others. */
export const nextOrder = (): number => (last = Math.max(last + 1, Date.now()))
