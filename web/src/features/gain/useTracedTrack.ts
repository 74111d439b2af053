import { api, type Edit } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import { useJob } from '@/stores/job'

/** A track as edits would make it, and as it is. */
export function useTracedTrack(track: () => string, edits: () => readonly Edit[]) {
  const job = useJob()
  return useFetched(
    () => (job.newest ? ([job.newest.job, track(), edits()] as const) : null),
    async ([id, name, changed]) => {
      const [now, then] = await Promise.all([api.ladder(id, name, '', []), api.ladder(id, name, '', changed)])
      return { now, then }
    },
  )
}
