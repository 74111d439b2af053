import { shallowRef, watch } from 'vue'

import { wordsOf } from '@/api/connection'
import { useJob } from '@/stores/job'

/**
 * What the server says about `key`, asked again when it changes and not at all where it is null. Only the newest question
 * counts: a late answer to an earlier one is dropped. What is wrong with a question is said in the bar of the job.
 */
export function useFetched<K, T>(key: () => K | null, fetch: (key: K) => Promise<T>) {
  const value = shallowRef<T | null>(null)
  let turn = 0

  watch(
    key,
    async (now) => {
      const mine = ++turn
      try {
        const found = now === null ? null : await fetch(now)
        if (mine === turn) value.value = found
      } catch (error) {
        if (mine === turn) useJob().problem = wordsOf(error)
      }
    },
    { immediate: true },
  )
  return value
}
