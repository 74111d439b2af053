import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ApiProblem, type Edit, type Finding, type JobState, type News } from '@/api/client'
import { newId } from '@/api/ids'
import { drop, nextOrder, onOthers, pending, put, type Pending } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

/** The open job: its newest state, or an earlier one that is being looked at. */
export const useJob = defineStore('job', () => {
  const settings = useSettings()
  const newest = shallowRef<JobState | null>(null)
  const looked = shallowRef<JobState | null>(null)
  const problem = ref('')
  const notice = ref('')
  const busy = ref(false)
  const unsaved = ref(0) // changes on their way that nobody has answered yet
  const refusals = ref(0) // counts changes that were not made: fields then show what the plan holds
  const refused = shallowRef<readonly Edit[]>([]) // what a newer state kept out, to be done again or dropped
  const recordingsNews = ref(0) // counts what others did with the job's recordings
  const pointed = ref('') // id of the finding that is pointed at
  const boxesFor = ref('') // run for which ways by another box are asked

  const state = computed(() => looked.value ?? newest.value)
  const findings = computed<readonly Finding[]>(() => state.value?.findings ?? [])
  const readOnly = computed(() => looked.value !== null)

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
    count(id)
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
  function edit(wanted: readonly Edit[] | (() => readonly Edit[])): Promise<boolean> {
    return inTurn(typeof wanted === 'function' ? wanted : keep(wanted))
  }

  function inTurn(wanted: Pending | null | (() => readonly Edit[])): Promise<boolean> {
    const mine = before.then(() => send(typeof wanted === 'function' ? keep(wanted()) : wanted))
    before = mine.catch(() => false) // one that fails does not stop those behind it
    return mine
  }

  /** What the outbox holds of a job: on its way, and kept out. */
  function count(id: string) {
    unsaved.value = pending(id).filter((item) => !item.refused).length
    refused.value = keptOut(id).flatMap(({ edits }) => edits)
  }

  onOthers(() => newest.value && count(newest.value.job))

  /** What was kept out, and is not being done again already. */
  function keptOut(id: string): Pending[] {
    const items = pending(id)
    const under = new Set(items.flatMap(({ instead }) => instead ?? []))
    return items.filter((item) => item.refused && !under.has(item.change.request))
  }

  /** What was kept out, done on the newest state. */
  function again(): Promise<boolean> {
    const items = keptOut(newest.value?.job ?? '')
    return inTurn(
      keep(
        items.flatMap(({ edits }) => edits),
        items.map(({ change }) => change.request),
      ),
    )
  }

  /** What was kept out is not wanted any more. */
  function forgetRefused() {
    keptOut(newest.value?.job ?? '').forEach(drop)
    refused.value = []
  }

  /** In the outbox from now on, before its turn comes. */
  function keep(edits: readonly Edit[], instead?: readonly string[]): Pending | null {
    const base = newest.value
    if (!base || readOnly.value || !edits.length) return null
    const item = { job: base.job, change: changeOf(base), edits, order: nextOrder(), tried: false, instead }
    put(item)
    count(base.job)
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
      drop(item)
      pending(item.job)
        .filter(({ change }) => item.instead?.includes(change.request))
        .forEach(drop)
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
      count(item.job)
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

  async function step(direction: 'undo' | 'redo') {
    const base = newest.value
    if (!base || readOnly.value) return
    if (direction === 'undo' ? !base.can_undo : !base.can_redo) return
    const change = changeOf(base)
    if (await attempt(() => api[direction](base.job, change))) notice.value = newest.value?.sentence ?? ''
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

  async function bringBack() {
    const [base, earlier] = [newest.value, looked.value]
    if (!base || !earlier) return
    const change = changeOf(base)
    if (await attempt(() => api.bringBack(base.job, change, earlier.revision))) {
      notice.value = newest.value?.sentence ?? ''
    }
  }

  /** A plan file in the place of this plan, as one step. */
  async function replace(plan: unknown): Promise<boolean> {
    const base = newest.value
    if (!base || readOnly.value) return false
    const change = changeOf(base)
    const done = await attempt(() => api.replacePlan(base.job, change, plan))
    if (done) notice.value = newest.value?.sentence ?? ''
    return done
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
