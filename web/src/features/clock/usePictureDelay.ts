import { ref } from 'vue'

import { api, wordsOf, type Clock } from '@/api/client'
import { useJob } from '@/stores/job'

type Picture = Clock['screens'][number]['pictures'][number]

/** What was measured of a camera's picture, as 5 or as 200 ms: the program turns it into frames. */
export function usePictureDelay() {
  const job = useJob()
  const problem = ref('')

  async function save(picture: Pick<Picture, 'device' | 'over_sdi'>, delay: string) {
    if (!job.newest) return
    problem.value = ''
    try {
      const { edits } = await api.pictureDelay(job.newest.job, picture.device, delay, picture.over_sdi)
      await job.edit(edits)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  return { problem, save }
}
