import { computed, type Ref } from 'vue'

import { api, type Log } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import { useJob } from '@/stores/job'

/** What is to be known of the scene that is shot, read again when somebody logs or the plan changes. */
export function useSceneNotes(log: Ref<Log | null>, slate: () => string) {
  const job = useJob()
  const key = computed(() =>
    job.newest && log.value && slate()
      ? JSON.stringify([job.newest.job, slate(), log.value.seq, job.newest.revision])
      : null,
  )
  return useFetched(
    () => key.value,
    (now) => {
      const [id, about] = JSON.parse(now) as [string, string]
      return api.sceneNotes(id, about)
    },
  )
}
