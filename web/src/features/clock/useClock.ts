import { shallowRef, watch } from 'vue'

import { api, type Clock } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

/** Time on the set, worked out anew with every state of the job. */
export function useClock() {
  const job = useJob()
  const clock = shallowRef<Clock | null>(null)
  const { problem, ask } = useLatest()

  watch(
    () => [job.newest?.job, job.newest?.revision] as const,
    ([id]) =>
      id &&
      void ask(
        () => api.clock(id),
        (found) => (clock.value = found),
      ),
    { immediate: true },
  )
  return { clock, problem }
}
