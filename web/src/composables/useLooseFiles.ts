import { ref } from 'vue'

import { api, wordsOf } from '@/api/client'
import { useJob } from '@/stores/job'

/** Opens the place where files lie that belong to no job. */
export function useLooseFiles() {
  const job = useJob()
  const problem = ref('')
  const id = ref('')

  async function open() {
    try {
      id.value = (await api.looseFiles()).job
      await job.open(id.value)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  void open()
  return { id, problem }
}
