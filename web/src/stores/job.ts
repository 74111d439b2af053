import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ApiProblem, type Change, type Edit, type Finding, type JobState } from '@/api/client'
import { deliver, drop, newId, pending, put, type Pending } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

/** The open job: its newest state, or an earlier one that is being looked at. */
export const useJob = defineStore('job', () => {
  const settings = useSettings()
  const newest = shallowRef<JobState | null>(null)
  const looked = shallowRef<JobState | null>(null)
  const problem = ref('')
  const notice = ref('')
  const busy = ref(false)
  const unsaved = ref(0) // changes that nobody has answered yet; they are sent again and again
  const refused = shallowRef<readonly Edit[]>([]) // what a newer state kept out, to be done again or dropped
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
      newest.value = await deliver(action, fail)
      problem.value = ''
      looked.value = null
      return true
    } catch (error) {
      fail(error)
      return false
    } finally {
      busy.value = false
    }
  }

  const changeOf = (base: JobState): Change => ({
    base_revision: base.revision,
    who: settings.who,
    request: newId(),
  })

  async function open(id: string) {
    if (newest.value?.job === id) return
    newest.value = null
    looked.value = null
    notice.value = ''
    refused.value = []
    if (!(await attempt(() => api.job(id)))) return
    // What an earlier page could not deliver. It is done once, whether it had arrived or not.
    for (const item of pending(id)) before = before.then(() => transmit(item))
  }

  let before: Promise<unknown> = Promise.resolve()

  /**
   * Edits as one step. On a newer state elsewhere that state is shown and the edits are kept to be done again.
   * One follows the other, so that two quick hands do not get in each other's way; edits that are made from what stands
   * there are given as a function, asked when their turn comes.
   */
  function edit(wanted: readonly Edit[] | (() => readonly Edit[])): Promise<boolean> {
    const mine = before.then(() => send(typeof wanted === 'function' ? wanted() : wanted))
    before = mine.catch(() => false) // one that fails does not stop those behind it
    return mine
  }

  async function send(edits: readonly Edit[]): Promise<boolean> {
    const base = newest.value
    if (!base || readOnly.value) return false
    const item = { job: base.job, change: changeOf(base), edits }
    put(item)
    return transmit(item)
  }

  async function transmit(item: Pending): Promise<boolean> {
    const isOpen = () => newest.value?.job === item.job
    try {
      problem.value = ''
      busy.value = true
      const state = await deliver(
        () => api.edit(item.job, item.change, item.edits),
        () => (unsaved.value = pending(item.job).length || 1),
      )
      if (isOpen()) {
        newest.value = state
        notice.value = state.sentence
      }
      if (item.edits === refused.value) refused.value = []
      return true
    } catch (error) {
      fail(error)
      if (error instanceof ApiProblem && error.code === 'revision-conflict' && isOpen()) {
        if (item.edits !== refused.value) refused.value = [...refused.value, ...item.edits]
        newest.value = await deliver(() => api.job(item.job), fail)
      }
      return false
    } finally {
      drop(item)
      unsaved.value = 0
      busy.value = false
    }
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
    refused,
    pointed,
    boxesFor,
    open,
    edit,
    undo: () => step('undo'),
    redo: () => step('redo'),
    lookAt,
    bringBack,
    replace,
    attempt,
  }
})
