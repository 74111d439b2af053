import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type Ends, type TwoThings } from '@/api/client'
import { newId } from '@/api/ids'
import { useLatest } from '@/composables/useLatest'
import { useCatalogue } from '@/stores/catalogue'
import { useOwnEquipment } from '@/stores/equipment'

/** Two devices to be joined, chosen from all there is; what joins them is asked anew with every choice. */
export function useTwoThings(chosen: () => Ends | null) {
  const { problem, busy, ask } = useLatest()
  const answer = shallowRef<TwoThings | null>(null)
  const failed = ref('')
  const catalogue = useCatalogue()
  const own = useOwnEquipment()

  const kinds = computed(() => {
    const mine = (own.classes ?? []).filter(({ page }) => page.of === 'device').map(({ page }) => page)
    return [...(mine.length ? [['My equipment', mine] as const] : []), ...catalogue.kinds]
  })

  watch(
    chosen,
    (ends) =>
      void ask(
        async () => (ends === null ? null : await api.joinTwo(ends)),
        (found) => (answer.value = found),
      ),
    { immediate: true, deep: true },
  )

  /** A job of one of the ways; its id, undefined where none was made. */
  async function take(number: number): Promise<string | undefined> {
    const ends = chosen()
    try {
      return ends === null ? undefined : (await api.takeJoined(ends, number, newId())).job
    } catch (error) {
      failed.value = wordsOf(error)
      return undefined
    }
  }

  void catalogue.load()
  own.load().catch((error: unknown) => (failed.value = wordsOf(error)))
  return { kinds, answer, busy, problem: computed(() => problem.value || failed.value), take }
}
