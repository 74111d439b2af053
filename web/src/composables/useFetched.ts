import { shallowRef, watch } from 'vue'

import { useJob } from '@/stores/job'
import { useLatest } from './useLatest'

/**
 * What the server says about `key`, asked again when it changes and not at all where it is null. What is wrong with the
 * newest question is said in the bar of the job.
 */
export function useFetched<K, T>(key: () => K | null, fetch: (key: K) => Promise<T>) {
  const value = shallowRef<T | null>(null)
  const { problem, ask } = useLatest()

  watch(
    key,
    (now) =>
      void ask(
        async () => (now === null ? null : await fetch(now)),
        (found) => (value.value = found),
      ),
    { immediate: true },
  )
  watch(problem, (words) => {
    if (words) useJob().problem = words
  })
  return value
}
