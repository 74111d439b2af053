import { shallowRef } from 'vue'

import { api, type Guests, type MadeKey, type Access } from '@/api/client'
import { useAttempt } from '@/composables/useAttempt'

/** What a key may be for, as it is offered. */
export const ACCESSES: readonly { value: Access; label: string; does: string }[] = [
  { value: 'walk', label: 'Walk and log', does: 'mark the checklist, and look at everything' },
  { value: 'look', label: 'Look only', does: 'look at everything, change nothing' },
  { value: 'crew', label: 'Crew', does: 'change every job, as at this machine' },
]

/** The keys of telephones: made, named, renewed and revoked. `page`: what a telephone opens first. */
export function useTelephones(page: string) {
  const guests = shallowRef<Guests | null>(null)
  const made = shallowRef<MadeKey | null>(null)
  const { problem, isBusy, attempt: one } = useAttempt()

  /** Whether it was done. */
  const attempt = async (action: () => Promise<unknown>) =>
    (await one(async () => {
      await action()
      guests.value = await api.guests()
      return true
    })) ?? false

  const make = (name: string, access: Access) =>
    attempt(async () => (made.value = await api.makeKey(name.trim(), access, page)))
  const renew = (id: string) => attempt(async () => (made.value = await api.renewKey(id, page)))
  const rename = (id: string, name: string) => attempt(() => api.renameKey(id, name))
  const revoke = (id: string) =>
    attempt(async () => {
      await api.revokeKey(id)
      if (made.value?.guest.id === id) made.value = null
    })
  void attempt(async () => undefined)
  return { guests, made, problem, isBusy, make, renew, rename, revoke }
}
