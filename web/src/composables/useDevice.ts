import type { Ref } from 'vue'

import { api } from '@/api/client'
import { useJob } from '@/stores/job'
import { useFetched } from './useFetched'

/** A device of the job with all that can be set on it; nothing where the job does not have it. */
export function useDevice(device: Ref<string>) {
  const job = useJob()
  return useFetched(
    () =>
      job.newest?.devices.some(({ id }) => id === device.value)
        ? ([job.newest.job, device.value, job.newest.revision] as const)
        : null,
    ([id, name]) => api.device(id, name),
  )
}
