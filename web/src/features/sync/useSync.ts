import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type PlaceIn, type Sync } from '@/api/client'
import { newId } from '@/api/ids'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'

const LOOK_MS = 500
const isUnder = (state: string) => state === 'waiting' || state === 'reading'

/** A clip moved by hand, on its way to the server. */
interface Move extends Kept {
  readonly file: string
  readonly by: { readonly samples: number } | { readonly where: PlaceIn }
}

/** Done once, however often it is sent: by its id. */
const deliver = (job: string, { file, by, id }: Move) =>
  'samples' in by ? api.nudgeClip(job, file, by.samples, id) : api.placeClip(job, file, by.where, id)

/** Files that are laid over each other: sent, looked after, and one of them chosen. */
export function useSync() {
  const job = useJob()
  const sync = shallowRef<Sync | null>(null)
  const problem = ref('')
  const sending = ref('')
  const chosen = ref('')

  /** What a user asked for; what was wrong with it stands until he asks for something else. */
  async function attempt(action: (id: string) => Promise<Sync | undefined>) {
    const id = job.newest?.job
    if (!id) return
    problem.value = ''
    try {
      const now = (await action(id)) ?? (await api.sync(id))
      if (job.newest?.job === id) sync.value = now
    } catch (error) {
      problem.value = wordsOf(error)
    }
    looking.later()
  }

  const isUnderWay = () =>
    sync.value?.files.some(({ state }) => isUnder(state)) || isUnder(sync.value?.match?.state ?? '')

  async function look() {
    const id = job.newest?.job
    if (!id) return
    try {
      const now = await api.sync(id)
      if (job.newest?.job === id) sync.value = now
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  const looking = usePolling(look, LOOK_MS, isUnderWay)

  /** One after the other; one that is refused does not keep the others out. */
  async function send(files: readonly File[]) {
    const id = job.newest?.job
    if (!id) return
    const refused: string[] = []
    for (const [index, file] of files.entries()) {
      sending.value = files.length > 1 ? `${file.name} (${index + 1} of ${files.length})` : file.name
      try {
        await api.sendSyncFile(id, file)
      } catch (error) {
        refused.push(`${file.name}: ${wordsOf(error)}`)
      }
      await looking.now()
    }
    sending.value = ''
    problem.value = refused.join('; ')
  }

  const setSide = (file: string, side: string) => attempt((id) => api.setSyncSide(id, file, side))
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
  let before: Promise<unknown> = Promise.resolve()

  /** What was moved and not answered yet, one after the other; what an earlier page could not deliver too. */
  function deliverMoves(id: string) {
    before = before.then(async () => {
      for (const move of kept<Move>(`clips-${id}`)) {
        if (job.newest?.job !== id) return
        await attempt(() => deliver(id, move))
        drop(move)
      }
    })
  }

  function move(file: string, by: Move['by']) {
    const id = job.newest?.job
    if (!id) return
    put<Move>({ box: `clips-${id}`, id: newId(), order: nextOrder(), file, by })
    deliverMoves(id)
  }
  /** By so many samples from where the last press put it, though that may be on its way still. */
  function nudge({ other, nudge_samples }: Sync['clips'][number], by: number) {
    const moves = kept<Move>(`clips-${job.newest?.job}`).filter(({ file }) => file === other)
    const last = moves.map((move) => ('samples' in move.by ? move.by.samples : 0)).at(-1)
    move(other, { samples: (last ?? nudge_samples) + Math.round(by) })
  }
  const restore = (file: string) => move(file, { samples: 0 })
  const place = (file: string, where: PlaceIn) => move(file, { where })

  watch(
    () => [job.newest?.job, job.recordingsNews],
    () => void looking.now(),
    { immediate: true },
  )
  watch(
    () => job.newest?.job,
    (id) => id && deliverMoves(id),
    { immediate: true },
  )

  /** Begins by itself once all files were looked at; what came to nothing or was cancelled is not begun again for the same files. */
  let begun = ''
  watch(sync, (now) => {
    const files = now?.files ?? []
    const ready = files.filter(({ state }) => state === 'done')
    const key = ready.map(({ id, side }) => `${id} ${side}`).join()
    if (!now || ready.length < 2 || files.some(({ state }) => isUnder(state)) || key === begun) return
    if (isUnder(now.match?.state ?? '') || (now.is_laid && !now.is_stale)) return
    if (!ready.some(({ side }) => side === 'camera')) return
    begun = key
    void match()
  })

  const isBusy = computed(() => isUnder(sync.value?.match?.state ?? ''))
  const clip = computed(() => sync.value?.clips.find(({ other }) => other === chosen.value))
  const name = (id: string) => sync.value?.files.find((file) => file.id === id)?.name ?? ''
  return {
    sync,
    problem,
    sending,
    chosen,
    clip,
    isBusy,
    name,
    send,
    setSide,
    remove,
    match,
    cancel,
    nudge,
    restore,
    place,
  }
}
