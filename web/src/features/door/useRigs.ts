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
  const filled = ref<Record<string, string>>({}) // gaps that no answer shows yet: two quick hands fill two of them

  watch(
    question,
    async (text) => {
      isWhole.value = text === ''
      if (text) answer.value = answer.value && { ...answer.value, rigs: [] } // those of another question answer nothing
      await ask(
        () => api.rigs(text, text !== ''),
        (found) => {
          answer.value = found
          filled.value = {}
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

  /** The question with a gap filled. */
  function fill(id: string, phrase: string): string {
    filled.value = { ...filled.value, [id]: phrase }
    return withGaps(answer.value?.gaps ?? [], filled.value)
  }

  /** A job that begins with a rig; its id, undefined where none was made. */
  async function take(approach: string): Promise<string | undefined> {
    try {
      return (await api.takeRig(question.value, approach, newId())).job
    } catch (error) {
      failed.value = wordsOf(error)
      return undefined
    }
  }
  return { answer, isWhole, problem: computed(() => problem.value || failed.value), busy, filled, fill, take }
}

/** The question with some gaps filled anew; what nobody has said stays open. */
export const withGaps = (gaps: readonly Gap[], filled: Readonly<Record<string, string>>): string =>
  gaps
    .filter(({ id, is_open }) => id in filled || !is_open)
    .map(({ id, phrase }) => filled[id] ?? phrase)
    .join(', ')
