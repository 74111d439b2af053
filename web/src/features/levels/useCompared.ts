import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api, type Ladder, type MatchingOption } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'
import type { Overlay } from '@/ui/ladderShape'

/** What a track is compared with, one at a time: itself as it was, the best option of a school, another track. */
export type Compared = '' | 'before' | 'clean' | 'guide' | `track:${string}`

/** The best option of each school, in a word. */
export const SCHOOLS = { clean: 'cleanest option', guide: 'simplest option' } as const

/** The ladder that a track is compared with: over its own where that is the same chain, else below it. */
export function useCompared(
  track: Ref<string>,
  ladder: Readonly<Ref<Ladder | null>>,
  options: Readonly<Ref<readonly MatchingOption[]>>,
) {
  const job = useJob()
  const compared = ref<Compared>('')
  const fetched = shallowRef<Overlay | null>(null)
  const before = shallowRef<Ladder | null>(null)
  const { ask } = useLatest()

  /** From now on this is what was before. */
  const hold = () => (before.value = ladder.value)
  watch(track, () => (before.value = null))
  watch(ladder, (now) => {
    if (now && before.value?.track !== now.track) before.value = now
  })

  async function wanted(): Promise<Overlay | null> {
    const name = job.newest?.job
    const chosen = compared.value
    if (!name || !chosen || chosen === 'before') return null
    if (chosen === 'clean' || chosen === 'guide') {
      const option = options.value.find(({ best_for }) => best_for.includes(chosen))
      return option
        ? { label: SCHOOLS[chosen], ladder: await api.ladder(name, track.value, '', option.edits) }
        : null
    }
    const beside = await api.ladder(name, chosen.slice('track:'.length), '', [])
    return { label: beside.title, ladder: beside }
  }

  watch(
    [compared, track, options],
    () =>
      void ask(
        () => wanted().catch(() => null), // the ladder itself says what is wrong
        (found) => (fetched.value = found),
      ),
    { immediate: true },
  )
  const other = computed<Overlay | null>(() =>
    compared.value === 'before'
      ? before.value && { label: 'as it was', ladder: before.value }
      : fetched.value,
  )
  /** Another track is another chain: its stages stand in a picture of their own. */
  const isOtherTrack = computed(
    () => other.value !== null && other.value.ladder.track !== ladder.value?.track,
  )
  return { compared, other, isOtherTrack, hold }
}
