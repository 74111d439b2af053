import { computed, onMounted, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type DayFiles, type FileFinding, type FileTask } from '@/api/client'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'

const WAIT_MS = 1000

const isOn = (task: FileTask | null | undefined) => task?.state === 'waiting' || task?.state === 'reading'

/** The files of the day: what was read, what does not agree, what was copied; looked at again while something is under way. */
export function useDayFiles() {
  const job = useJob()
  const id = computed(() => job.newest?.job ?? '')
  const seen = shallowRef<DayFiles | null>(null)
  const problem = ref('')
  const tasks = computed(() => [seen.value?.read, seen.value?.copies?.task, seen.value?.played?.task])
  const isBusy = computed(() => tasks.value.some(isOn))
  const polling = usePolling(look, WAIT_MS, () => isBusy.value)

  async function look() {
    if (!id.value) return
    try {
      seen.value = await api.dayFiles(id.value)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  async function begin(start: () => Promise<unknown>) {
    problem.value = ''
    try {
      await start()
    } catch (error) {
      problem.value = wordsOf(error)
    }
    await polling.now()
  }
  // Simulated files are there to be read.
  watch(
    () => seen.value?.played?.task,
    (now, before) => {
      if (now?.state === 'done' && isOn(before) && now.id === before?.id)
        void begin(() => api.readFolder(id.value, now.folder, true))
    },
  )
  onMounted(() => void polling.now())
  watch(
    () => job.logNews,
    () => void polling.now(),
  )

  return {
    seen,
    problem,
    isBusy,
    isOn,
    read: (folder: string, withSound: boolean) => begin(() => api.readFolder(id.value, folder, withSound)),
    copy: (into: string, second: string, mono: boolean) =>
      begin(() => api.copyFiles(id.value, into, second, mono)),
    play: (seed: number, faults: number) => begin(() => api.playDay(id.value, seed, faults)),
    mend: (finding: FileFinding) => begin(() => api.mendLog(id.value, finding.path, finding.can_be)),
    cancel: (task: FileTask) => begin(() => api.endFileTask(id.value, task.id)),
  }
}
