import { ref } from 'vue'

import { api, wordsOf } from '@/api/client'
import { useJob } from '@/stores/job'

/** A calendar or a table from elsewhere becomes set-ups, breaks and moves: one step, which can be undone. */
export function useDaySheet() {
  const job = useJob()
  const problem = ref('')

  async function read(file: File) {
    if (!job.newest) return
    try {
      problem.value = ''
      await job.edit((await api.daySheet(job.newest.job, await file.text())).edits)
    } catch (error) {
      problem.value = `${file.name}: ${wordsOf(error)}`
    }
  }
  return { problem, read }
}
