import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import {
  api,
  ApiProblem,
  wordsOf,
  type Change,
  type Edit,
  type Finding,
  type JobState,
  type News,
} from '@/api/client'
import { changing, type Conflict } from '@/api/connection'
import { useMe } from '@/stores/me'
import { newId } from '@/api/ids'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

/** What is to be done to the plan: `step` along its history, `bringBack` the state of that number, `plan` a plan file. */
type Doing =
  | { readonly edits: readonly Edit[] }
  | { readonly step: 'undo' | 'redo' }
  | { readonly bringBack: number }
  | { readonly plan: unknown }

/** A change on its way; its id is the request's. */
export type Pending = Kept &
  Doing & {
    readonly job: string
    readonly change: Change & { request: string }
    readonly tried: boolean // sent at least once: it may have arrived, and is only sent again as it is
    readonly refused?: Conflict // a newer state kept it out: it waits for a person
    readonly instead?: string // the request that was kept out and that this one does again
  }

function request(item: Pending): Promise<JobState> {
  if ('edits' in item) return api.edit(item.job, item.change, item.edits)
  if ('step' in item) return api[item.step](item.job, item.change)
  if ('bringBack' in item) return api.bringBack(item.job, item.change, item.bringBack)
  return api.replacePlan(item.job, item.change, item.plan)
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
  const logNews = ref(0) // and what was logged
  const pointed = ref('') // id of the finding that is pointed at
  const boxesFor = ref('') // run for which options via another device are asked

  const state = computed(() => looked.value ?? newest.value)
  const findings = computed<readonly Finding[]>(() => state.value?.findings ?? [])
  const me = useMe()
  const readOnly = computed(() => looked.value !== null || !me.mayEdit)
  /** Changes on their way that nobody has answered yet. */
  const unsaved = computed(
    () => pending(wanted.value).filter((item) => !item.refused).length + kept(`clips-${wanted.value}`).length,
  )
  /** What a newer state kept out, to be done again or dropped. */
  const refused = computed<readonly Pending[]>(() => keptOut(wanted.value))

  function fail(error: unknown) {
    problem.value = wordsOf(error)
  }

  async function open(id: string) {
    if (newest.value?.job === id) return
    newest.value = null
    looked.value = null
    notice.value = ''
    problem.value = ''
    wanted.value = id
    busy.value = true
    try {
      newest.value = await api.job(id)
    } catch (error) {
      fail(error)
      return
    } finally {
      busy.value = false
    }
    // What an earlier page could not deliver. It is done once, whether it had arrived or not.
    for (const item of pending(id).filter((item) => !item.refused))
      void after((left) => (item.tried ? transmit(item) : send(item, left)))
  }

  /** The last change of the queue: the revision that it left, null where it was not made. */
  let before: Promise<number | null> = Promise.resolve(null)
  let waiting = 0 // changes in the queue

  /** When all that was done before is answered: `action` is given the revision that this left, null where it was not made. */
  async function after(action: (left: number | null) => Promise<number | null>): Promise<boolean> {
    const left = waiting ? before : Promise.resolve(newest.value?.revision ?? null)
    waiting += 1
    const mine = changing(() => left.then(action)).finally(() => (waiting -= 1))
    before = mine.catch(() => null) // one that fails does not stop those behind it
    return (await mine) !== null
  }

  /**
   * Edits as one step. On a newer state elsewhere that state is shown and the edits are kept to be done again.
   * One follows the other, so that two quick hands do not get in each other's way; edits that are made from what stands
   * there are given as a function, asked when their turn comes.
   */
  function edit(edits: readonly Edit[] | (() => readonly Edit[])): Promise<boolean> {
    if (typeof edits === 'function') return after((left) => send(keep({ edits: edits() }), left))
    return inTurn(keep({ edits }))
  }

  const inTurn = (item: Pending | null) => after((left) => send(item, left))

  /** What was kept out, and is not being done again already. */
  function keptOut(id: string): Pending[] {
    const items = pending(id)
    const under = new Set(items.map(({ instead }) => instead))
    return items.filter((item) => item.refused && !under.has(item.id))
  }

  /** What was kept out, done on the newest state. */
  async function again(): Promise<boolean> {
    const items = keptOut(wanted.value).map((item) => keep(item, item.id))
    const done = await Promise.all(items.map(inTurn))
    return done.length > 0 && done.every(Boolean)
  }

  /** What was kept out is not wanted any more. */
  function forgetRefused() {
    keptOut(wanted.value).forEach(drop)
  }

  /** In the outbox from now on, before its turn comes. */
  function keep(doing: Doing, instead?: string): Pending | null {
    const base = newest.value
    if (!base || (readOnly.value && !('bringBack' in doing))) return null
    if ('edits' in doing && !doing.edits.length) return null
    const id = newId()
    const change = { base_revision: base.revision, who: settings.who, request: id }
    const named = { box: boxOf(base.job), id, order: nextOrder(), job: base.job, change }
    const item: Pending = { ...doing, ...named, tried: false, refused: undefined, instead }
    put(item)
    return item
  }

  /**
   * For the first time. Edits go with the newest state that is known; all else is about the state that the change before it
   * left, so that an undo never takes back what somebody else did meanwhile.
   */
  async function send(item: Pending | null, left: number | null): Promise<number | null> {
    const base = newest.value
    if (!item || base?.job !== item.job) return null // it stays in the outbox until its job is opened again
    if ('step' in item && (left === null || !base[`can_${item.step}`])) {
      drop(item) // there is nothing to undo: what it was meant for was not made
      return left
    }
    const base_revision = 'edits' in item || left === null ? base.revision : left
    const now = { ...item, change: { ...item.change, base_revision }, tried: true }
    put(now)
    return transmit(now)
  }

  async function transmit(item: Pending): Promise<number | null> {
    const isOpen = () => newest.value?.job === item.job
    try {
      problem.value = ''
      busy.value = true
      const state = await request(item)
      if (isOpen()) {
        // What had arrived long ago is answered by the state that it made then.
        if (state.revision > (newest.value?.revision ?? 0)) newest.value = state
        if ('bringBack' in item) looked.value = null
        notice.value = state.sentence
      }
      // First what it did again: were it the last to go, a page that ends here would leave that to be done a second time.
      pending(item.job)
        .filter(({ id }) => item.instead === id)
        .forEach(drop)
      drop(item)
      return state.revision
    } catch (error) {
      refusals.value += 1
      const isConflict = error instanceof ApiProblem && error.code === 'revision-conflict'
      if (isConflict && !('step' in item)) keepOut(item, error.conflict)
      else {
        fail(error)
        drop(item)
      }
      if (isConflict && isOpen()) newest.value = await api.job(item.job)
      return null
    } finally {
      busy.value = false
    }
  }

  /** One that was done again and kept out again leaves its place to the first, with what has changed by now. */
  function keepOut(item: Pending, { yours, theirs, by }: Conflict) {
    const first = pending(item.job).find(({ id }) => id === item.instead)
    put({ ...(first ?? item), refused: { yours, theirs, by } })
    if (first) drop(item)
  }

  /** What somebody else did is shown: after one's own changes, which may have been made known the same way. */
  function hear({ what, revision }: News) {
    const id = newest.value?.job
    if (what === 'recordings' || what === 'look') recordingsNews.value += 1
    if (what === 'log' || what === 'look') logNews.value += 1
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

  async function lookAt(number: number) {
    const base = newest.value
    if (!base) return
    try {
      looked.value = number === base.revision ? null : await api.revision(base.job, number)
    } catch (error) {
      fail(error)
    }
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
    logNews,
    pointed,
    boxesFor,
    open,
    edit,
    hear,
    again,
    forgetRefused,
    undo: () => inTurn(keep({ step: 'undo' })),
    redo: () => inTurn(keep({ step: 'redo' })),
    lookAt,
    bringBack: () => inTurn(looked.value && keep({ bringBack: looked.value.revision })),
    /** A plan file in the place of this plan, as one step. */
    replace: (plan: unknown) => inTurn(keep({ plan })),
  }
})
