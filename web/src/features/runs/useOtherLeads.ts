import { computed, ref, watch } from 'vue'

import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import { useJob } from '@/stores/job'

/** Other cables for a run, and options via another device, which take longer: only who asks waits for those. */
export function useOtherLeads(run: () => string) {
  const job = useJob()
  const here = computed(() => (job.newest ? ([job.newest.job, run(), job.newest.revision] as const) : null))
  const joins = useFetched(
    () => here.value,
    ([id, name]) => api.cableChains(id, name),
  )
  const isWanted = ref(false)
  const insertedDevices = useFetched(
    () => (isWanted.value ? here.value : null),
    ([id, name]) => api.insertedDevices(id, name),
  )
  watch(here, () => (isWanted.value = false))
  return { joins, isWanted, insertedDevices }
}
