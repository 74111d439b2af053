import { computed, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type LineUpStep, type Reading, type VoiceStep } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

/** The steps of the line-up, worked out anew with every state of the job; one of them is open. */
export function useLineUp(wanted: Ref<string>) {
  const job = useJob()
  const steps = shallowRef<readonly LineUpStep[] | null>(null)
  const voices = shallowRef<readonly VoiceStep[]>([])
  const { problem, ask } = useLatest()

  watch(
    () => [job.newest?.job, job.newest?.revision] as const,
    ([id]) =>
      id &&
      void ask(
        () => Promise.all([api.lineUp(id), api.voices(id)]),
        (found) => ([steps.value, voices.value] = found),
      ),
    { immediate: true },
  )

  const open = computed(
    () =>
      steps.value?.find(({ track }) => track === wanted.value) ??
      steps.value?.find(({ state, warning }) => state !== 'done' && !warning) ??
      steps.value?.[0],
  )

  /** Take what was read for what is so, as one edit of the job. */
  const take = (track: string, read: number, from: 'meter' | 'recording' | 'simulation') =>
    doing((id) => api.reading(id, track, read, from))

  /** Set a pair as it was found in another job: to be verified. */
  const takeEarlier = (track: string) => doing((id) => api.earlier(id, track))

  async function doing(edits: (job: string) => Promise<Reading>) {
    if (!job.newest) return
    try {
      await job.edit((await edits(job.newest.job)).edits)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  return { steps, voices, open, problem, take, takeEarlier }
}
