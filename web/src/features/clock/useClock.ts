import { ref, shallowRef, watch } from 'vue'

import { api, ApiProblem, type Clock } from '@/api/client'
import { useJob } from '@/stores/job'

/** Time on the set, worked out anew with every state of the job and every length of the day. */
export function useClock() {
  const job = useJob()
  const clock = shallowRef<Clock | null>(null)
  const hours = ref(10)
  const problem = ref('')
  let turn = 0

  watch(
    [() => job.newest?.revision, hours],
    async () => {
      const mine = ++turn
      if (!job.newest) return
      try {
        const found = await api.clock(job.newest.job, hours.value)
        if (mine === turn) [clock.value, problem.value] = [found, '']
      } catch (error) {
        if (mine === turn) problem.value = error instanceof ApiProblem ? error.detail : String(error)
      }
    },
    { immediate: true },
  )
  return { clock, hours, problem }
}
