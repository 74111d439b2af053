import { computed, ref, shallowRef, watch } from 'vue'

import { api, type Day, type DayTask } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useLogbook } from '@/composables/useLogbook'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'

const AGAIN_MS = 60_000 // the next things move on with the clock
const LATER_MS = 600_000 // ten minutes: then what was put off is asked for again

/** The day of the job from now on, what was moved by the last change, and what is told to the log of it. */
export function useDay() {
  const job = useJob()
  const book = useLogbook()
  const day = shallowRef<Day | null>(null)
  const whole = ref(false)
  const before = shallowRef<ReadonlyMap<string, string>>(new Map())
  const putOff = ref<Readonly<Record<string, number>>>({})
  const { problem, busy, ask } = useLatest()
  let asked = ''

  /** A quick answer first, then the one that holds the set least often. */
  async function look() {
    const id = job.newest?.job
    if (!id) return
    const key = `${id} ${job.newest?.revision}`
    const isNew = key !== asked
    asked = key
    const rest = !whole.value
    const take = (found: Day) => {
      if (isNew && day.value)
        before.value = new Map(day.value.tasks.map((task) => [task.id + task.what, task.at]))
      day.value = found
    }
    if (isNew && day.value) await ask(() => api.day(id, { rest, first: true }), take)
    await ask(
      () => api.day(id, { rest }),
      (found) => (day.value = found),
    )
  }
  const looking = usePolling(look, AGAIN_MS)
  watch(
    [() => job.newest?.job, () => job.newest?.revision, () => book.log.value?.seq, whole],
    () => void looking.now(),
    { immediate: true },
  )

  const open = computed(() =>
    (day.value?.tasks ?? []).filter((task) => (putOff.value[task.id] ?? 0) < Date.now()),
  )
  const next = computed(() => open.value.slice(0, 3))
  /** What stands at another time than before the last change. */
  const hasMoved = (task: DayTask) => {
    const was = before.value.get(task.id + task.what)
    return was !== undefined && was !== task.at
  }
  const moved = computed(() => day.value?.tasks.filter(hasMoved).length ?? 0)

  const done = (task: DayTask) =>
    book.tap({ act: 'done', kind: task.kind, device: task.device, text: task.id })
  const later = (task: DayTask) => (putOff.value = { ...putOff.value, [task.id]: Date.now() + LATER_MS })
  const holds = (kind: string, device: string, left: number) => book.tap({ act: 'holds', kind, device, left })
  const slip = (from: number, by: number) => job.edit([{ kind: 'shift-day', from_min: from, by_min: by }])

  return { day, next, whole, moved, hasMoved, problem, busy, book, done, later, holds, slip }
}
