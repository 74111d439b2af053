import { ref, watch, type Ref } from 'vue'

import { api } from '@/api/client'
import { useReadFile } from '@/composables/useReadFile'
import { useJob } from '@/stores/job'

/** A recording of a track, read back to how loud its source and the place really are. */
export function useHeard(track: Ref<string>) {
  const job = useJob()
  const channel = ref(1)
  const { found, problem, busy, clear, take } = useReadFile((file) =>
    api.heard(job.newest?.job ?? '', track.value, file, channel.value),
  )
  watch(track, clear)
  return { heard: found, problem, busy, channel, read: take }
}
