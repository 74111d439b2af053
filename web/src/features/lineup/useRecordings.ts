import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type AskedOfRecording, type Knob, type Recording } from '@/api/client'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'
import { isOver, LOOK_MS } from '@/composables/useMeasured'

/** The recordings of the job: sent, looked after while they are measured, and one of them opened. */
export function useRecordings() {
  const job = useJob()
  const recordings = shallowRef<readonly Recording[]>([])
  const opened = shallowRef<Recording | null>(null)
  const problem = ref('')
  const sending = ref('')

  async function attempt(action: (id: string) => Promise<void>) {
    if (!job.newest) return
    try {
      problem.value = ''
      await action(job.newest.job)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  /** What becomes ready is opened. */
  const see = () =>
    attempt(async (id) => {
      const before = new Set(recordings.value.filter((item) => !isOver(item)).map((item) => item.id))
      recordings.value = await api.recordings(id)
      const ready = recordings.value.find((item) => before.has(item.id) && item.state === 'done')
      if (ready) await open(ready.id)
    })
  /** Now, and again and again while something is under way. */
  const { now: look } = usePolling(see, LOOK_MS, () => !recordings.value.every(isOver))

  const open = (recording: string) =>
    attempt(async (id) => {
      opened.value = await api.recording(id, recording)
    })

  /** Send a file for what it was made for: a track, or one recording at several settings. */
  const send = (file: File, asked: AskedOfRecording) =>
    attempt(async (id) => {
      sending.value = file.name
      try {
        const sent = await api.sendRecording(id, file, asked)
        recordings.value = [sent, ...recordings.value]
      } finally {
        sending.value = ''
      }
      await look()
    })

  /** Made by simulated devices: it is listed at once, and opened when it is measured. */
  const simulated = (ask: (id: string) => Promise<Recording>) =>
    attempt(async (id) => {
      recordings.value = [await ask(id), ...recordings.value]
      await look()
    })

  const simulate = (track: string) => simulated((id) => api.simulateTone(id, track))

  const simulateSteps = (track: string, knob: Knob, positions: number[], target: number) =>
    simulated((id) =>
      api.simulateSteps(id, track, {
        device: knob.device,
        control: knob.control,
        positions,
        target_dbfs: target,
      }),
    )

  /** What a knob gave, for all devices of its class. */
  const takeLaw = (recording: string, device: string, control: string, scale: [number, number] | null) =>
    attempt(async (id) => {
      await job.edit((await api.law(id, recording, device, control, scale)).edits)
    })

  /** What a meter showed beside what was recorded. */
  const takeMeter = (recording: string, track: string, shown: (number | null)[]) =>
    attempt(async (id) => {
      await job.edit((await api.meter(id, recording, track, shown)).edits)
    })

  const cancel = (recording: string) =>
    attempt(async (id) => {
      await api.cancelRecording(id, recording)
      await look()
    })

  const remove = (recording: string) =>
    attempt(async (id) => {
      await api.removeRecording(id, recording)
      if (opened.value?.id === recording) opened.value = null
      await look()
    })

  watch(
    () => [job.newest?.job, job.recordingsNews],
    () => void look(),
    { immediate: true },
  )
  const result = computed(() => opened.value?.result ?? null)
  return {
    recordings,
    opened,
    result,
    problem,
    sending,
    look,
    open,
    send,
    simulate,
    simulateSteps,
    takeLaw,
    takeMeter,
    cancel,
    remove,
    isOver,
  }
}
