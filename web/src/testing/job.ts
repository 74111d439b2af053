import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { createRenderer, effectScope, nextTick } from 'vue'

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

const NOTHING = () => ({})
const NOWHERE = () => null
const { createApp } = createRenderer<object, object>({
  ...{ createElement: NOTHING, createText: NOTHING, createComment: NOTHING },
  ...{ parentNode: NOWHERE, nextSibling: NOWHERE },
  ...{ insert: NOTHING, remove: NOTHING, patchProp: NOTHING, setText: NOTHING, setElementText: NOTHING },
})

/** The same within a component that stands on a page, for what begins when that is shown; `leave` takes it away. */
export function onPage<T>(compose: () => T, state: object = {}) {
  const made: T[] = []
  const app = createApp({ setup: () => (made.push(compose()), () => null) })
  vi.stubGlobal('window', new EventTarget())
  const { job, edits, moveOn } = onJob(() => undefined, state)
  app.mount({})
  return { job, edits, moveOn, made: made[0] as T, leave: () => app.unmount() }
}
