import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'

import { ApiProblem, api, wordsOf, type Walk, type WalkMark } from '@/api/client'
import { isCut } from '@/api/connection'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

const LOOK_MS = 1500

/** A mark that has not reached the server yet; its id is the item's, so that the newest word on each item counts. */
interface KeptMark extends Kept {
  readonly mark: WalkMark
}

const boxOf = (walk: string) => `walk-${walk}`
const unsent = (walk: string) => kept<KeptMark>(boxOf(walk))

/** A walk with what is still on its way: the newest word on each item. */
export function overlaid(walk: Walk, waiting: readonly WalkMark[]): Walk {
  const words = new Map(waiting.map((mark) => [mark.item, mark]))
  const groups = walk.groups.map((group) => ({
    ...group,
    items: group.items.map((item) => ({ ...item, ...(words.get(item.id) ?? {}) })),
  }))
  const marks = groups.flatMap(({ items }) => items.map(({ mark }) => mark))
  const count = (wanted: string) => marks.filter((mark) => mark === wanted).length
  return { ...walk, groups, good: count('good'), faults: count('fault') }
}

/** The walk of the job: shared with everybody who walks, marked with or without a connection. */
export function useWalk() {
  const job = useJob()
  const settings = useSettings()
  const walks = shallowRef<readonly Walk[] | null>(null) // null until it is known whether there is one
  const served = shallowRef<Walk | null>(null)
  const problem = ref('')
  const isBusy = ref(false)

  const waiting = computed<readonly WalkMark[]>(() => unsent(served.value?.id ?? '').map(({ mark }) => mark))
  const walk = computed(() => served.value && overlaid(served.value, waiting.value))

  async function attempt(action: (id: string) => Promise<void>) {
    if (!job.newest) return
    try {
      await action(job.newest.job)
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  /** Deliver what waits, then see what the others did; again and again, for as long as the page stands. */
  const look = () =>
    attempt(async (id) => {
      if (!served.value) return
      const walk = served.value.id
      const sent = unsent(walk)
      const marks = sent.map(({ mark }) => mark)
      try {
        const now = marks.length ? await api.markWalk(id, walk, marks) : await api.walk(id, walk)
        sent.forEach(drop)
        if (served.value.id === walk) served.value = now // another one may have been chosen meanwhile
      } catch (error) {
        if (error instanceof ApiProblem && error.status === 403) sent.forEach(drop) // this key is not for that
        throw error
      }
    })
  const looking = usePolling(look, LOOK_MS)

  function mark(item: string, wanted: WalkMark['mark']) {
    if (!served.value) return
    const made = new Date().toISOString()
    const named = { box: boxOf(served.value.id), id: item, order: nextOrder() }
    put<KeptMark>({ ...named, mark: { item, mark: wanted, made, who: settings.who } })
    void looking.now()
  }

  function open(chosen: Walk) {
    served.value = chosen
  }

  const list = () =>
    attempt(async (id) => {
      walks.value = await api.walks(id)
      const newest = walks.value[0]
      if (!newest) return
      open(newest)
      // Without a connection the list may have been kept from before the last marks; the walk itself is looked at all the time.
      const now = await api.walk(id, newest.id)
      if (served.value?.id === newest.id) served.value = now
    })
  async function begin(short: boolean) {
    if (isBusy.value) return
    isBusy.value = true
    problem.value = ''
    await attempt(async (id) => {
      const begun = await api.beginWalk(id, short)
      walks.value = [begun, ...(walks.value ?? [])]
      open(begun)
    })
    isBusy.value = false
  }

  watch(
    () => job.newest?.job,
    () => void list(),
    { immediate: true },
  )
  onMounted(() => {
    window.addEventListener('online', looking.now)
    void looking.now()
  })
  onBeforeUnmount(() => {
    window.removeEventListener('online', looking.now)
  })
  return { walks, walk, waiting, problem, isCut, isBusy, mark, begin, open }
}
