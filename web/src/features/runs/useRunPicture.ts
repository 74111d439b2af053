import type { Ref } from 'vue'

import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import { useJob } from '@/stores/job'

/** The contacts of a cable, and what arrives at each; nothing where the job does not have it. */
export function useRunPicture(run: Ref<string>) {
  const job = useJob()
  return useFetched(
    () =>
      job.newest && job.state?.plan.runs?.some(({ id }) => id === run.value)
        ? ([job.newest.job, run.value, job.newest.revision] as const)
        : null,
    ([id, name]) => api.picture(id, name),
  )
}
