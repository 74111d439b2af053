import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import { api, ApiProblem, type Edit, type Finding, type JobState } from '@/api/client'
import { useSettings } from '@/stores/settings'

/** The open job: its newest state, or an earlier one that is being looked at. */
export const useJob = defineStore('job', () => {
  const settings = useSettings()
  const newest = shallowRef<JobState | null>(null)
  const looked = shallowRef<JobState | null>(null)
  const problem = ref('')
  const notice = ref('')
  const busy = ref(false)
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

  async function open(id: string) {
    if (newest.value?.job === id) return
    newest.value = null
    looked.value = null
    notice.value = ''
    refused.value = []
    await attempt(() => api.job(id))
  }

  let before: Promise<unknown> = Promise.resolve()

  /**
   * Edits as one step. On a newer state elsewhere that state is shown and the edits are kept to be done again.
   * One follows the other, so that two quick hands do not get in each other's way; edits that are made from what stands
   * there are given as a function, asked when their turn comes.
   */
  function edit(wanted: readonly Edit[] | (() => readonly Edit[])): Promise<boolean> {
    const mine = before.then(() => send(typeof wanted === 'function' ? wanted() : wanted))
    before = mine
    return mine
  }

  async function send(edits: readonly Edit[]): Promise<boolean> {
    const base = newest.value
    if (!base || readOnly.value) return false
    try {
      problem.value = ''
      busy.value = true
      newest.value = await api.edit(base.job, base.revision, edits, settings.who)
      notice.value = newest.value.sentence
      refused.value = []
      return true
    } catch (error) {
      fail(error)
      if (error instanceof ApiProblem && error.code === 'revision-conflict') {
        newest.value = await api.job(base.job)
        refused.value = edits
      }
      return false
    } finally {
      busy.value = false
    }
  }

  async function step(direction: 'undo' | 'redo') {
    const base = newest.value
    if (!base || readOnly.value) return
    if (direction === 'undo' ? !base.can_undo : !base.can_redo) return
    if (await attempt(() => api[direction](base.job, base.revision, settings.who)))
      notice.value = newest.value?.sentence ?? ''
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
    if (await attempt(() => api.bringBack(base.job, base.revision, earlier.revision, settings.who))) {
      notice.value = newest.value?.sentence ?? ''
    }
  }

  /** A plan file in the place of this plan, as one step. */
  async function replace(plan: unknown): Promise<boolean> {
    const base = newest.value
    if (!base || readOnly.value) return false
    const done = await attempt(() => api.replacePlan(base.job, base.revision, plan, settings.who))
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
