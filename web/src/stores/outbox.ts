import type { Change, Edit } from '@/api/client'

/** Edits on their way. They are kept until the program has said yes or no to them, over a reload too. */
export interface Pending {
  readonly job: string
  readonly change: Change & { request: string }
  readonly edits: readonly Edit[]
  readonly order: number // of two the lesser was made first
  readonly tried: boolean // sent at least once: it may have arrived, and is only sent again as it is
  readonly refused?: boolean // a newer state kept it out: it waits for a person
  readonly instead?: readonly string[] // the requests that were kept out and that this one does again
}

const start = (job: string) => `tidy-edit-${job}-`
/** Each in a place of its own: windows of one browser share them, and none writes over what another one keeps. */
const key = (item: Pending) => start(item.job) + item.change.request
const memory = new Map<string, string>() // of a browser that keeps nothing: for as long as the page stands

function all(job: string): string[] {
  try {
    const names = [...Array(localStorage.length).keys()].map((at) => localStorage.key(at) ?? '')
    return names.filter((name) => name.startsWith(start(job))).map((name) => localStorage.getItem(name) ?? '')
  } catch {
    return []
  }
}

/** What a job still waits for, the oldest first. */
export const pending = (job: string): Pending[] =>
  [...all(job), ...[...memory].filter(([name]) => name.startsWith(start(job))).map(([, text]) => text)]
    .filter(Boolean)
    .map((text) => JSON.parse(text) as Pending)
    .sort((one, other) => one.order - other.order)

/** Kept until it is dropped; one that is kept already is replaced. */
export function put(item: Pending) {
  try {
    localStorage.setItem(key(item), JSON.stringify(item))
  } catch {
    memory.set(key(item), JSON.stringify(item))
  }
}

export function drop(item: Pending) {
  memory.delete(key(item))
  try {
    localStorage.removeItem(key(item))
  } catch {
    // It was kept in memory alone.
  }
}

let last = 0

/** Later than every one before, in this window and, as far as the clock goes, in the others. */
export const nextOrder = (): number => (last = Math.max(last + 1, Date.now()))

/** Told when another window of this browser has kept or dropped something. */
export function onOthers(look: () => void) {
  if (typeof window !== 'undefined') window.addEventListener('storage', look)
}
