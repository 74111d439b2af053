import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'

import { api, type Fix } from '@/api/client'
import { useJob } from './job'

const WAIT_MS = 150 // a hand that goes on turning is not advised at every step

/** What mends the findings of the newest state. It comes after the findings: each fix is tried on the whole plan. */
export const useAdvice = defineStore('advice', () => {
  const job = useJob()
  const fixes = shallowRef<Readonly<Record<string, readonly Fix[]>>>({})
  const isThinking = ref(false)
  let ready: Promise<void> = Promise.resolve()

  async function ask(id: string, revision: number) {
    await new Promise((resolve) => setTimeout(resolve, WAIT_MS))
    const isNewest = () => job.newest?.job === id && job.newest.revision === revision
    if (!isNewest()) return
    try {
      const advice = await api.advice(id)
      if (isNewest() && advice.revision === revision) fixes.value = advice.fixes
    } catch {
      // Without advice the findings stand as they are; the next edit asks again.
    } finally {
      if (isNewest()) isThinking.value = false
    }
  }

  watch(
    () => [job.newest?.job, job.newest?.revision] as const,
    ([id, revision]) => {
      fixes.value = {}
      isThinking.value = id !== undefined
      if (id !== undefined && revision !== undefined) ready = ask(id, revision)
    },
    { immediate: true },
  )

  /** The fixes of a finding, best first; empty while they are looked for. */
  const of = (finding: string): readonly Fix[] => fixes.value[finding] ?? []

  /** The same, waited for. */
  async function whenReady(finding: string): Promise<readonly Fix[]> {
    await ready
    return of(finding)
  }

  return { fixes, isThinking, of, whenReady }
})
