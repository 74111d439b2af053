import { ref, shallowRef } from 'vue'

import { api, wordsOf, type Copies } from '@/api/client'

/** The backups on this machine, and one more where it is asked for. */
export function useCopies() {
  const kept = shallowRef<Copies | null>(null)
  const problem = ref('')
  const isBusy = ref(false)

  async function attempt(action: () => Promise<unknown>) {
    if (isBusy.value) return
    isBusy.value = true
    problem.value = ''
    try {
      await action()
      kept.value = await api.copies()
    } catch (error) {
      problem.value = wordsOf(error)
    } finally {
      isBusy.value = false
    }
  }
  const make = () => attempt(api.makeCopy)
  void attempt(async () => undefined)
  return { kept, problem, isBusy, make }
}
