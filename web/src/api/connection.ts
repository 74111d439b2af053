import { computed, ref } from 'vue'

/** Of a change that a newer state kept out: what it was to do, what has changed since, and who did the last of it. */
export interface Conflict {
  readonly yours?: string
  readonly theirs?: readonly string[]
  readonly by?: string
}

/** What the server says is wrong: `detail` is a sentence for the user. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    readonly detail: string,
    readonly conflict: Conflict = {},
  ) {
    super(detail)
  }
}

/** What went wrong, as it is shown. */
export const wordsOf = (error: unknown): string =>
  error instanceof ApiProblem ? error.detail : String(error)

const FIRST_MS = 500
const LONGEST_MS = 5_000
const without = ref(0) // requests that nobody has answered yet, and that are sent again

/** Why there was no answer the last time. */
export const trouble = ref('')

const isOld = ref(false) // the last answer was one that this telephone had kept

/** Whether the program does not answer at the moment. */
export const isCut = computed(() => without.value > 0 || isOld.value)

/** Where an answer came from: the program, or what was kept of it. */
export const noteAnswer = (response: Response) => {
  isOld.value = response.headers.has(__KEPT_HEADER__)
  if (isOld.value) trouble.value = 'The program does not answer: this is what it said last.'
}

/** Whether another try may do: nobody answered, or somebody who says that the program does not. */
const mayPass = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem && [0, 502, 503, 504, 507].includes(error.status)

let begun = 0
const open = ref(0)

/** How many changes were begun so far. */
export const changesBegun = () => begun

/** Whether changes are on their way that nobody has answered yet. */
export const isChanging = computed(() => open.value > 0)

/** Something that changes what the program keeps, from now on until it is answered. */
export async function changing<T>(action: () => Promise<T>): Promise<T> {
  begun += 1
  open.value += 1
  try {
    return await action()
  } finally {
    open.value -= 1
  }
}

/** Those that wait for their next try. */
const sleepers = new Set<() => void>()
const wakeAll = () => [...sleepers].forEach((wake) => wake())
if (typeof window !== 'undefined') window.addEventListener('online', wakeAll)

function patience(tries: number): Promise<void> {
  return new Promise((done) => {
    const wake = () => {
      clearTimeout(timer)
      sleepers.delete(wake)
      done()
    }
    const timer = setTimeout(wake, Math.min(FIRST_MS * 2 ** tries, LONGEST_MS))
    sleepers.add(wake)
  })
}

/**
 * Tries until there is an answer: for what may be sent twice, because it only reads, or because it carries an id.
 *
 * `isWanted`: asked before each further try; what nobody wants any more fails as it failed.
 */
export async function deliver<T>(action: () => Promise<T>, isWanted = () => true): Promise<T> {
  let tries = 0
  try {
    for (;;) {
      try {
        return await action()
      } catch (error) {
        if (!mayPass(error) || !isWanted()) throw error
        trouble.value = error.detail
        if (!tries) without.value += 1
        await patience(tries)
        tries += 1
      }
    }
  } finally {
    if (tries) {
      without.value -= 1
      wakeAll() // what this one waited for is over for all
    }
  }
}
