import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type Gap, type Rigs } from '@/api/client'
import { newId } from '@/api/ids'
import { useLatest } from '@/composables/useLatest'

/**
 * The rigs that answer a question, asked again when it changes: the first of them soon, then all. `isWhole`: all of them are
 * there.
 */
export function useRigs(question: Ref<string>) {
  const { problem, busy, ask } = useLatest()
  const answer = shallowRef<Rigs | null>(null)
  const isWhole = ref(true)
  const failed = ref('')

  watch(
    question,
    async (text) => {
      await ask(
        () => api.rigs(text, text !== ''),
        (found) => {
          answer.value = found
          isWhole.value = text === ''
        },
      )
      if (text === '' || text !== question.value || problem.value) return
      await ask(
        () => api.rigs(text, false),
        (found) => {
          answer.value = found
          isWhole.value = true
        },
      )
    },
    { immediate: true },
  )

  /** A job that begins with a rig; its id, undefined where none was made. */
  async function take(approach: string): Promise<string | undefined> {
    try {
      return (await api.takeRig(question.value, approach, newId())).job
    } catch (error) {
      failed.value = wordsOf(error)
      return undefined
    }
  }
  return { answer, isWhole, problem: computed(() => problem.value || failed.value), busy, take }
}

/** The question with one gap filled anew; what nobody has said stays open. */
export const withGap = (gaps: readonly Gap[], id: string, phrase: string): string =>
  gaps
    .filter((gap) => gap.id === id || !gap.is_open)
    .map((gap) => (gap.id === id ? phrase : gap.phrase))
    .join(', ')
