import { shallowRef } from 'vue'

import { api, type Copies } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'

/** The backups on this machine, and one more where it is asked for. */
export function useCopies() {
  const kept = shallowRef<Copies | null>(null)
  const { problem, isBusy, attempt } = useAttempt()
  const look = async () => (kept.value = await api.copies())

  const make = () =>
    attempt(async () => {
      await api.makeCopy()
      await look()
    })
  void attempt(look)
  return { kept, problem, isBusy, make }
}
