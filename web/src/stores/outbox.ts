import type { Change, Edit } from '@/api/client'

/** Edits on their way. They are kept until the program has said yes or no to them, over a reload too. */
export interface Pending {
  readonly job: string
  readonly change: Change
  readonly edits: readonly Edit[]
  readonly tried: boolean // sent at least once: it may have arrived, and is only sent again as it is
}

const shelf = () => (typeof localStorage === 'undefined' ? null : localStorage)
const key = (job: string) => `tidy-edits-${job}`

/** What a job still waits for, the oldest first. */
export function pending(job: string): Pending[] {
  try {
    return JSON.parse(shelf()?.getItem(key(job)) ?? '[]') as Pending[]
  } catch {
    return []
  }
}

function keep(job: string, items: readonly Pending[]) {
  try {
    if (items.length) shelf()?.setItem(key(job), JSON.stringify(items))
    else shelf()?.removeItem(key(job))
  } catch {
    // A browser that keeps nothing: it is sent all the same, for as long as the page stands.
  }
}

const isSame = (item: Pending) => (other: Pending) => other.change.request === item.change.request

/** Kept until it is dropped; one that is kept already is replaced. */
export function put(item: Pending) {
  const items = pending(item.job)
  keep(
    item.job,
    items.some(isSame(item)) ? items.map((other) => (isSame(item)(other) ? item : other)) : [...items, item],
  )
}

export const drop = (item: Pending) =>
  keep(
    item.job,
    pending(item.job).filter((other) => !isSame(item)(other)),
  )
