import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'

import { api, ApiProblem, type Walk, type WalkMark } from '@/api/client'
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
  const walks = shallowRef<readonly Walk[]>([])
  const served = shallowRef<Walk | null>(null)
  const waiting = shallowRef<readonly WalkMark[]>([])
  const problem = ref('')
  const cut = ref(false)
  let timer = 0
  let busy = false

  const walk = computed(() => served.value && overlaid(served.value, waiting.value))

  async function attempt(action: (id: string) => Promise<void>) {
    if (!job.newest) return
    try {
      await action(job.newest.job)
      ;[problem.value, cut.value] = ['', false]
    } catch (error) {
      cut.value = error instanceof ApiProblem && error.status === 0
      problem.value = cut.value ? '' : error instanceof ApiProblem ? error.detail : String(error)
    }
  }

  /** Deliver what waits, then see what the others did; again and again, for as long as the page stands. */
  async function look() {
    window.clearTimeout(timer)
    if (!busy) {
      busy = true
      await attempt(async (id) => {
        if (!served.value) return
        const sent = waiting.value
        const walk = served.value.id
        served.value = sent.length ? await api.markWalk(id, walk, sent) : await api.walk(id, walk)
        if (sent.length) keep(waiting.value.filter((mark) => !sent.includes(mark)))
      })
      busy = false
    }
    timer = window.setTimeout(() => void look(), LOOK_MS)
  }

  function keep(marks: readonly WalkMark[]) {
    if (!served.value) return
    waiting.value = marks
    localStorage.setItem(key(served.value.id), JSON.stringify(marks))
  }

  function mark(item: string, wanted: WalkMark['mark']) {
    const made = new Date().toISOString()
    keep([
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
  const begin = () =>
    attempt(async (id) => {
      const begun = await api.beginWalk(id)
      walks.value = [begun, ...walks.value]
      open(begun)
    })

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
  return { walks, walk, waiting, problem, cut, mark, begin, open }
}
