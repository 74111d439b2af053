import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'

import { api, ApiProblem, type Walk, type WalkMark } from '@/api/client'
import { isCut } from '@/api/connection'
import { useJob } from '@/stores/job'
import { useSettings } from '@/stores/settings'

const LOOK_MS = 1500
const key = (walk: string) => `tidy-walk-${walk}`

/** Marks that have not reached the server yet; they outlive a reload, and a telephone that was put away. */
export function kept(walk: string): WalkMark[] {
  try {
    return JSON.parse(localStorage.getItem(key(walk)) ?? '[]') as WalkMark[]
  } catch {
    return []
  }
}

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
  const waiting = shallowRef<readonly WalkMark[]>([])
  const problem = ref('')
  const isBusy = ref(false)
  let timer = 0
  let isLooking = false

  const walk = computed(() => served.value && overlaid(served.value, waiting.value))

  async function attempt(action: (id: string) => Promise<void>) {
    if (!job.newest) return
    try {
      await action(job.newest.job)
    } catch (error) {
      problem.value = error instanceof ApiProblem ? error.detail : String(error)
    }
  }

  /** Deliver what waits, then see what the others did; again and again, for as long as the page stands. */
  async function look() {
    window.clearTimeout(timer)
    if (!isLooking) {
      isLooking = true
      await attempt(async (id) => {
        if (!served.value) return
        const sent = waiting.value
        const walk = served.value.id
        const now = sent.length ? await api.markWalk(id, walk, sent) : await api.walk(id, walk)
        keep(
          walk,
          kept(walk).filter(
            (mark) => !sent.some(({ item, made }) => item === mark.item && made === mark.made),
          ),
        )
        if (served.value.id === walk) served.value = now // another one may have been chosen meanwhile
      })
      isLooking = false
    }
    timer = window.setTimeout(() => void look(), LOOK_MS)
  }

  function keep(walk: string, marks: readonly WalkMark[]) {
    localStorage.setItem(key(walk), JSON.stringify(marks))
    if (served.value?.id === walk) waiting.value = marks
  }

  function mark(item: string, wanted: WalkMark['mark']) {
    if (!served.value) return
    const made = new Date().toISOString()
    keep(served.value.id, [
      ...waiting.value.filter((old) => old.item !== item),
      { item, mark: wanted, made, who: settings.who },
    ])
    void look()
  }

  function open(chosen: Walk) {
    served.value = chosen
    waiting.value = kept(chosen.id)
  }

  const list = () =>
    attempt(async (id) => {
      walks.value = await api.walks(id)
      if (walks.value[0]) open(walks.value[0])
    })
  async function begin() {
    if (isBusy.value) return
    isBusy.value = true
    problem.value = ''
    await attempt(async (id) => {
      const begun = await api.beginWalk(id)
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
    window.addEventListener('online', look)
    void look()
  })
  onBeforeUnmount(() => {
    window.removeEventListener('online', look)
    window.clearTimeout(timer)
  })
  return { walks, walk, waiting, problem, isCut, isBusy, mark, begin, open }
}
