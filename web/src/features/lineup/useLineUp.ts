import { computed, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type LineUpStep, type VoiceStep } from '@/api/client'
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
  async function take(track: string, read: number, from: 'meter' | 'recording' | 'bench') {
    if (!job.newest) return
    try {
      const { edits } = await api.reading(job.newest.job, track, read, from)
      await job.edit(edits)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  return { steps, voices, open, problem, take }
}
