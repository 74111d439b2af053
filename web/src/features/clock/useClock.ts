import { shallowRef, ref, watch } from 'vue'

import { api, wordsOf, type Clock } from '@/api/client'
import { useJob } from '@/stores/job'

/** Time on the set, worked out anew with every state of the job. */
export function useClock() {
  const job = useJob()
  const clock = shallowRef<Clock | null>(null)
  const problem = ref('')
  let turn = 0

  watch(
    () => [job.newest?.job, job.newest?.revision] as const,
    async ([id]) => {
      const mine = ++turn
      if (!id) return
      try {
        const found = await api.clock(id)
        if (mine === turn) [clock.value, problem.value] = [found, '']
      } catch (error) {
        if (mine === turn) problem.value = wordsOf(error)
      }
    },
    { immediate: true },
  )
  return { clock, problem }
}
