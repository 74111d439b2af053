import { onScopeDispose, ref } from 'vue'

import { wordsOf } from '@/api/connection'

/**
 * Questions of which only the newest counts: a late answer to an earlier one is dropped, and so is every answer once the page
 * that asked has gone. `problem` is what went wrong with the newest, in words; `busy` while it is not answered.
 */
export function useLatest() {
  const problem = ref('')
  const busy = ref(false)
  let turn = 0

  async function ask<T>(question: () => Promise<T>, take: (answer: T) => void): Promise<void> {
    const mine = ++turn
    busy.value = true
    try {
      const answer = await question()
      if (mine !== turn) return
      take(answer)
      problem.value = ''
    } catch (error) {
      if (mine === turn) problem.value = wordsOf(error)
    } finally {
      if (mine === turn) busy.value = false
    }
  }

  onScopeDispose(() => turn++)
  return { problem, busy, ask }
}
