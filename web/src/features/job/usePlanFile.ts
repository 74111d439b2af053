import { shallowRef } from 'vue'

import { api, ApiProblem, type Changes } from '@/api/client'
import { useJob } from '@/stores/job'

/** A plan file read in over the job, with what it would change shown before it does. */
export function usePlanFile() {
  const job = useJob()
  const file = shallowRef<{ name: string; plan: unknown } | null>(null)
  const changes = shallowRef<Changes | null>(null)

  async function read(chosen: File) {
    if (!job.newest) return
    job.problem = ''
    try {
      const plan: unknown = JSON.parse(await chosen.text())
      changes.value = await api.wouldChange(job.newest.job, plan)
      file.value = { name: chosen.name, plan }
    } catch (error) {
      job.problem =
        error instanceof ApiProblem
          ? `${chosen.name}: ${error.detail}`
          : `${chosen.name} is not a saved plan (.json).`
    }
  }

  async function use() {
    if (file.value && (await job.replace(file.value.plan))) file.value = null
  }
  return { file, changes, read, use }
}
