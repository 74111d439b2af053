import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'

import { api, ApiProblem, type Sync } from '@/api/client'
import { useJob } from '@/stores/job'

const LOOK_MS = 500
const isUnder = (state: string) => state === 'waiting' || state === 'reading'

/** Files that are laid over each other: sent, looked after, and one of them chosen. */
export function useSync() {
  const job = useJob()
  const sync = shallowRef<Sync | null>(null)
  const problem = ref('')
  const sending = ref('')
  const chosen = ref('')
  let timer = 0

  const words = (error: unknown) => (error instanceof ApiProblem ? error.detail : String(error))

  /** What a user asked for; what was wrong with it stands until he asks for something else. */
  async function attempt(action: (id: string) => Promise<Sync | undefined>) {
    const id = job.newest?.job
    if (!id) return
    problem.value = ''
    try {
      sync.value = (await action(id)) ?? (await api.sync(id))
    } catch (error) {
      problem.value = words(error)
    }
    watchOver()
  }

  /** Look again and again while something is under way. */
  function watchOver() {
    window.clearTimeout(timer)
    const found = sync.value
    if (!found) return
    const busy = found.files.some(({ state }) => isUnder(state)) || isUnder(found.match?.state ?? '')
    if (busy) timer = window.setTimeout(() => void look(), LOOK_MS)
  }

  async function look() {
    const id = job.newest?.job
    if (!id) return
    try {
      sync.value = await api.sync(id)
    } catch (error) {
      problem.value = words(error)
      return
    }
    watchOver()
  }

  /** One after the other; one that is refused does not keep the others out. */
  async function send(files: readonly File[], side: 'recorder' | 'camera') {
    const id = job.newest?.job
    if (!id) return
    const refused: string[] = []
    for (const [index, file] of files.entries()) {
      sending.value = files.length > 1 ? `${file.name} (${index + 1} of ${files.length})` : file.name
      try {
        await api.sendSyncFile(id, file, side)
      } catch (error) {
        refused.push(`${file.name}: ${words(error)}`)
      }
      await look()
    }
    sending.value = ''
    problem.value = refused.join('; ')
  }

  const remove = (file: string) =>
    attempt(async (id) => {
      await api.removeSyncFile(id, file)
      return undefined
    })
  const match = () =>
    attempt(async (id) => {
      await api.matchSync(id)
      return undefined
    })
  const cancel = () => attempt((id) => api.cancelSync(id))
  const nudge = (file: string, samples: number) =>
    attempt((id) => api.nudgeClip(id, file, Math.round(samples)))
  const place = (file: string, where: Parameters<typeof api.placeClip>[2]) =>
    attempt((id) => api.placeClip(id, file, where))

  watch(
    () => [job.newest?.job, job.recordingsNews],
    () => void look(),
    { immediate: true },
  )
  onBeforeUnmount(() => window.clearTimeout(timer))

  const isBusy = computed(() => isUnder(sync.value?.match?.state ?? ''))
  const clip = computed(() => sync.value?.clips.find(({ other }) => other === chosen.value))
  const name = (id: string) => sync.value?.files.find((file) => file.id === id)?.name ?? ''
  return { sync, problem, sending, chosen, clip, isBusy, name, send, remove, match, cancel, nudge, place }
}
