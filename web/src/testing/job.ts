import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { effectScope, nextTick } from 'vue'

import type { Edit, JobState } from '@/api/client'
import { useJob } from '@/stores/job'

/** Long enough for every answer of a server that answers at once. */
export const settle = async () => {
  await new Promise((done) => setTimeout(done, 5))
  await nextTick()
}

const EMPTY = { job: 'j', revision: 1, findings: [], devices: [], runs: [], plan: { leads: [], runs: [] } }

/** A composable on an open job whose edits are only noted. */
export function onJob<T>(compose: () => T, state: object = {}) {
  setActivePinia(createPinia())
  const job = useJob()
  job.newest = { ...EMPTY, ...state } as unknown as JobState
  const edits: Edit[] = []
  vi.spyOn(job, 'edit').mockImplementation((given) => {
    edits.push(...(typeof given === 'function' ? given() : given))
    return Promise.resolve(true)
  })
  const scope = effectScope()
  const moveOn = () => (job.newest = { ...job.newest, revision: (job.newest?.revision ?? 0) + 1 } as JobState)
  return { job, edits, moveOn, made: scope.run(compose) as T, stop: () => scope.stop() }
}
