import { ref } from 'vue'

import { wordsOf } from '@/api/connection'

/** One thing at a time that changes something: `problem` is what went wrong with the last, in words. */
export function useAttempt() {
  const problem = ref('')
  const isBusy = ref(false)

  /** What came of it; null where it went wrong, or where another is under way. */
  async function attempt<T>(action: () => Promise<T>): Promise<T | null> {
    if (isBusy.value) return null
    isBusy.value = true
    problem.value = ''
    try {
      return await action()
    } catch (error) {
      problem.value = wordsOf(error)
      return null
    } finally {
      isBusy.value = false
    }
  }
  return { problem, isBusy, attempt }
}
