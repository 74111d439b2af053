import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api, type Ladder, type Way } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'
import type { Overlay } from '@/ui/ladderShape'

/** What a ladder can be laid beside: itself as it was, what each school would do, another track. */
export type Compared = '' | 'before' | 'schools' | `track:${string}`

const SCHOOLS = [
  { school: 'clean', label: 'the clean way', mark: '○' },
  { school: 'guide', label: 'good enough for a guide', mark: '△' },
] as const

/** The ladders that are drawn beside a track's own. */
export function useCompared(
  track: Ref<string>,
  ladder: Readonly<Ref<Ladder | null>>,
  ways: Readonly<Ref<readonly Way[]>>,
) {
  const job = useJob()
  const compared = ref<Compared>('')
  const fetched = shallowRef<readonly Overlay[]>([])
  const before = shallowRef<Ladder | null>(null)
  const { ask } = useLatest()

  /** From now on this is what was before. */
  const hold = () => (before.value = ladder.value)
  watch(track, () => (before.value = null))
  watch(ladder, (now) => {
    if (now && before.value?.track !== now.track) before.value = now
  })

  async function wanted(): Promise<readonly Overlay[]> {
    const name = job.newest?.job
    if (!name) return []
    if (compared.value === 'schools') {
      const found = SCHOOLS.flatMap(({ school, label, mark }) => {
        const way = ways.value.find(({ best_for }) => best_for.includes(school))
        return way ? [{ way, label: `${label}: ${way.label}`, mark }] : []
      })
      return Promise.all(
        found.map(async ({ way, label, mark }) => ({
          label,
          mark,
          ladder: await api.ladder(name, track.value, '', way.edits),
        })),
      )
    }
    const [kind, other] = compared.value.split(/:(.*)/)
    if (kind !== 'track' || !other) return []
    const beside = await api.ladder(name, other, '', [])
    return [{ label: beside.title, mark: '○', ladder: beside }]
  }

  watch(
    [compared, track, ways],
    () =>
      void ask(
        () => wanted().catch(() => []), // the ladder itself says what is wrong
        (found) => (fetched.value = found),
      ),
    { immediate: true },
  )
  const others = computed<readonly Overlay[]>(() =>
    compared.value === 'before' && before.value
      ? [{ label: 'as it was', mark: '○', ladder: before.value }]
      : fetched.value,
  )
  return { compared, others, hold }
}
