import { ref, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type Edit, type Ladder, type MatchingOption } from '@/api/client'
import { useJob } from '@/stores/job'

/** The ladder of a track and the options of its last run, those by another box when they are asked for; while a knob moves, what the server says it would give. */
export function useLadder(track: Ref<string>, through: Ref<string>) {
  const job = useJob()
  const ladder = shallowRef<Ladder | null>(null)
  const options = shallowRef<readonly MatchingOption[]>([])
  const boxes = shallowRef<readonly MatchingOption[] | null>(null)
  const problem = ref('')
  let waiting: readonly Edit[] | null = null
  let running = false

  /** One request at a time, and always the newest one last: a fast hand does not queue up old positions. */
  async function draw(edits: readonly Edit[]) {
    waiting = edits
    if (running) return
    running = true
    try {
      while (waiting && job.newest) {
        const next: readonly Edit[] = waiting
        waiting = null
        ladder.value = await api.ladder(job.newest.job, track.value, through.value, next)
        problem.value = ''
      }
    } catch (error) {
      problem.value = wordsOf(error)
      ladder.value = null
    } finally {
      running = false
    }
  }

  watch(
    [track, through, () => job.newest?.revision],
    async () => {
      if (!track.value) return
      boxes.value = null
      await draw([])
      const run = ladder.value?.run
      options.value = run && job.newest ? await api.options(job.newest.job, run) : []
    },
    { immediate: true },
  )
  /** Options via another device take longer: only who asks waits for them. */
  async function askForBoxes() {
    const run = ladder.value?.run
    if (!run || !job.newest) return
    try {
      boxes.value = await api.insertedDevices(job.newest.job, run)
    } catch (error) {
      ;[boxes.value, problem.value] = [[], wordsOf(error)]
    }
  }
  return { ladder, options, boxes, problem, preview: draw, askForBoxes }
}
