import { ref, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import { useJob } from '@/stores/job'

/** The revisions of a job, and what tells two of them apart: `before` and `after`, by number. */
export function useHistory(isWanted: Ref<boolean>) {
  const job = useJob()
  const before = ref<number | null>(null)
  const after = ref<number | null>(null)
  const entries = useFetched(
    () => (isWanted.value && job.newest ? ([job.newest.job, job.newest.revision] as const) : null),
    ([id]) => api.history(id),
  )
  watch(entries, () => (after.value = job.newest?.revision ?? null))
  const changes = useFetched(
    () =>
      job.newest && before.value && after.value
        ? ([job.newest.job, before.value, after.value] as const)
        : null,
    ([id, first, second]) => api.differences(id, first, second),
  )
  return { before, after, entries, changes }
}
