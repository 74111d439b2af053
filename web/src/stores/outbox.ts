import { ApiProblem, type Change, type Edit } from '@/api/client'

/** Edits on their way. They are kept until the program has said yes or no to them, over a reload too. */
export interface Pending {
  readonly job: string
  readonly change: Change
  readonly edits: readonly Edit[]
}

const LONGEST_MS = 15_000
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

export const put = (item: Pending) => keep(item.job, [...pending(item.job), item])

export const drop = ({ job, change }: Pending) =>
  keep(
    job,
    pending(job).filter((item) => item.change.request !== change.request),
  )

/** An id that nobody else gives. A page that came over the set's network has no `randomUUID`. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  const hex = [...bytes].map((byte, at) => {
    const marked = at === 6 ? (byte & 0x0f) | 0x40 : at === 8 ? (byte & 0x3f) | 0x80 : byte
    return marked.toString(16).padStart(2, '0')
  })
  return [hex.slice(0, 4), hex.slice(4, 6), hex.slice(6, 8), hex.slice(8, 10), hex.slice(10)]
    .map((part) => part.join(''))
    .join('-')
}

/** Whether another try may do: nobody answered, or somebody who says that the program does not. */
const mayPass = (error: unknown) => error instanceof ApiProblem && [0, 502, 503, 504].includes(error.status)

const patience = (tries: number) =>
  new Promise((done) => setTimeout(done, Math.min(500 * 2 ** tries, LONGEST_MS)))

/** Tries until there is an answer; `waiting` is told each time that there is none. */
export async function deliver<T>(action: () => Promise<T>, waiting: (error: ApiProblem) => void): Promise<T> {
  for (let tries = 0; ; tries += 1) {
    try {
      return await action()
    } catch (error) {
      if (!mayPass(error)) throw error
      waiting(error as ApiProblem)
      await patience(tries)
    }
  }
}
