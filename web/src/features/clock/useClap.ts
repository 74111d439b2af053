import { ref, type Ref } from 'vue'

import { api, type Clock } from '@/api/client'
import { useReadFile } from '@/composables/useReadFile'
import { useJob } from '@/stores/job'

type Late = Clock['screens'][number]

/** A recording of the programme in which somebody claps, read back to how late the picture really is. */
export function useClap(late: Readonly<Ref<Late>>) {
  const job = useJob()
  const camera = ref(late.value.pictures[0]?.device ?? '')
  const frame = ref<number | ''>('')
  const reading = useReadFile((file) =>
    api.clap(job.newest?.job ?? '', late.value.device, camera.value, Number(frame.value), file),
  )

  /** Its figure for the camera, as one edit of the job. */
  async function use() {
    const { found } = reading
    if (found.value && (await job.edit(found.value.edits))) found.value = null
  }
  return { camera, frame, ...reading, use }
}
