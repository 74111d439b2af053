import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ApiProblem, type Change, type Edit, type Finding, type JobState, type News } from '@/api/client'
import { changing } from '@/api/connection'
import { newId } from '@/api/ids'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

/** Edits on their way; their id is the request's. */
export interface Pending extends Kept {
  readonly job: string
  readonly change: Change & { request: string }
  readonly edits: readonly Edit[]
  readonly tried: boolean // sent at least once: it may have arrived, and is only sent again as it is
  readonly refused?: boolean // a newer state kept it out: it waits for a person
  readonly instead?: readonly string[] // the requests that were kept out and that this one does again
}

const boxOf = (job: string) => `plan-${job}`
export const pending = (job: string) => kept<Pending>(boxOf(job))

/** The open job: its newest state, or an earlier one that is being looked at. */
export const useJob = defineStore('job', () => {
  const settings = useSettings()
  const wanted = ref('') // the id of the job that is open, or about to be
  const newest = shallowRef<JobState | null>(null)
  const looked = shallowRef<JobState | null>(null)
  const problem = ref('')
  const notice = ref('')
  const busy = ref(false)
  const refusals = ref(0) // counts changes that were not made: fields then show what the plan holds
  const recordingsNews = ref(0) // counts what others did with the job's recordings
  const pointed = ref('') // id of the finding that is pointed at
  const boxesFor = ref('') // run for which ways by another box are asked

  const state = computed(() => looked.value ?? newest.value)
  const findings = computed<readonly Finding[]>(() => state.value?.findings ?? [])
  const readOnly = computed(() => looked.value !== null)
  /** Changes on their way that nobody has answered yet. */
  const unsaved = computed(
    () => pending(wanted.value).filter((item) => !item.refused).length + kept(`clips-${wanted.value}`).length,
  )
  /** What a newer state kept out, to be done again or dropped. */
  const refused = computed<readonly Edit[]>(() => keptOut(wanted.value).flatMap(({ edits }) => edits))

  function fail(error: unknown) {
    problem.value = error instanceof ApiProblem ? error.detail : String(error)
  }

  async function attempt(action: () => Promise<JobState>): Promise<boolean> {
    problem.value = ''
    busy.value = true
    try {
      newest.value = await action()
      looked.value = null
      return true
    } catch (error) {
      fail(error)
      return false
    } finally {
      busy.value = false
    }
  }

  const changeOf = (base: JobState): Pending['change'] => ({
    base_revision: base.revision,
    who: settings.who,
    request: newId(),
  })

  async function open(id: string) {
    if (newest.value?.job === id) return
    newest.value = null
    looked.value = null
    notice.value = ''
    wanted.value = id
    if (!(await attempt(() => api.job(id)))) return
    // What an earlier page could not deliver. It is done once, whether it had arrived or not.
    for (const item of pending(id).filter((item) => !item.refused))
      before = before.then(() => (item.tried ? transmit(item) : send(item)))
  }

  let before: Promise<unknown> = Promise.resolve()

  /**
   * Edits as one step. On a newer state elsewhere that state is shown and the edits are kept to be done again.
   * One follows the other, so that two quick hands do not get in each other's way; edits that are made from what stands
   * there are given as a function, asked when their turn comes.
   */
  function edit(edits: readonly Edit[] | (() => readonly Edit[])): Promise<boolean> {
    return inTurn(typeof edits === 'function' ? edits : keep(edits))
  }

  function inTurn(edits: Pending | null | (() => readonly Edit[])): Promise<boolean> {
    return after(() => send(typeof edits === 'function' ? keep(edits()) : edits))
  }

  /** When all that was done before is answered. */
  function after(action: () => Promise<boolean>): Promise<boolean> {
    const mine = changing(() => before.then(action))
    before = mine.catch(() => false) // one that fails does not stop those behind it
    return mine
  }

  /** What was kept out, and is not being done again already. */
  function keptOut(id: string): Pending[] {
    const items = pending(id)
    const under = new Set(items.flatMap(({ instead }) => instead ?? []))
    return items.filter((item) => item.refused && !under.has(item.id))
  }

  /** What was kept out, done on the newest state. */
  function again(): Promise<boolean> {
    const items = keptOut(wanted.value)
    return inTurn(
      keep(
        items.flatMap(({ edits }) => edits),
        items.map(({ id }) => id),
      ),
    )
  }

  /** What was kept out is not wanted any more. */
  function forgetRefused() {
    keptOut(wanted.value).forEach(drop)
  }

  /** In the outbox from now on, before its turn comes. */
  function keep(edits: readonly Edit[], instead?: readonly string[]): Pending | null {
    const base = newest.value
    if (!base || readOnly.value || !edits.length) return null
    const change = changeOf(base)
    const named = { box: boxOf(base.job), id: change.request, order: nextOrder() }
    const item: Pending = { ...named, job: base.job, change, edits, tried: false, instead }
    put(item)
    return item
  }

  /** For the first time: on the state that those before it left. */
  async function send(item: Pending | null): Promise<boolean> {
    const base = newest.value
    if (!item || base?.job !== item.job) return false // it stays in the outbox until its job is opened again
    const now = { ...item, change: { ...item.change, base_revision: base.revision }, tried: true }
    put(now)
    return transmit(now)
  }

  async function transmit(item: Pending): Promise<boolean> {
    const isOpen = () => newest.value?.job === item.job
    try {
      problem.value = ''
      busy.value = true
      const state = await api.edit(item.job, item.change, item.edits)
      if (isOpen()) {
        newest.value = state
        notice.value = state.sentence
      }
      // First what it did again: were it the last to go, a page that ends here would leave that to be done a second time.
      pending(item.job)
        .filter(({ id }) => item.instead?.includes(id))
        .forEach(drop)
      drop(item)
      return true
    } catch (error) {
      fail(error)
      refusals.value += 1
      const isKeptOut = error instanceof ApiProblem && error.code === 'revision-conflict'
      if (isKeptOut && !item.instead) put({ ...item, refused: true })
      else drop(item)
      if (isKeptOut && isOpen()) newest.value = await api.job(item.job)
      return false
    } finally {
      busy.value = false
    }
  }

  /** What somebody else did is shown: after one's own changes, which may have been made known the same way. */
  function hear({ what, revision }: News) {
    const id = newest.value?.job
    if (what === 'recordings' || what === 'look') recordingsNews.value += 1
    if (id === undefined || !(what === 'plan' || what === 'look')) return
    // No edit waits for this: one that is made meanwhile is told whether it came too late.
    void before.then(async () => {
      const base = newest.value
      if (base?.job !== id || (revision && revision <= base.revision)) return
      try {
        const state = await api.job(id)
        if (newest.value?.job !== id || state.revision <= newest.value.revision) return
        newest.value = state
        notice.value = `${state.who || 'Somebody else'}: ${state.sentence}`
      } catch (error) {
        fail(error)
      }
    })
  }

  /** Undone as often as it is pressed, however slow the answers are. */
  const step = (direction: 'undo' | 'redo') =>
    changed((base) => {
      if (readOnly.value || (direction === 'undo' ? !base.can_undo : !base.can_redo)) return null
      return api[direction](base.job, changeOf(base))
    })

  async function lookAt(number: number) {
    const base = newest.value
    if (!base) return
    try {
      looked.value = number === base.revision ? null : await api.revision(base.job, number)
    } catch (error) {
      fail(error)
    }
  }

  function bringBack() {
    const earlier = looked.value
    return changed((base) => earlier && api.bringBack(base.job, changeOf(base), earlier.revision))
  }

  /** A plan file in the place of this plan, as one step. */
  const replace = (plan: unknown) =>
    changed((base) => (readOnly.value ? null : api.replacePlan(base.job, changeOf(base), plan)))

  /** The newest state by one step more, in its turn; none where there is nothing to do. */
  function changed(action: (base: JobState) => Promise<JobState> | null): Promise<boolean> {
    return after(async () => {
      const answer = newest.value && action(newest.value)
      if (!answer || !(await attempt(() => answer))) return false
      notice.value = newest.value?.sentence ?? ''
      return true
    })
  }

  return {
    newest,
    looked,
    state,
    findings,
    readOnly,
    problem,
    notice,
    busy,
    unsaved,
    refusals,
    refused,
    recordingsNews,
    pointed,
    boxesFor,
    open,
    edit,
    hear,
    again,
    forgetRefused,
    undo: () => step('undo'),
    redo: () => step('redo'),
    lookAt,
    bringBack,
    replace,
    attempt,
  }
})
