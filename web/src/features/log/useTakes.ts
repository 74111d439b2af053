import { computed, onScopeDispose, ref } from 'vue'

import type { LoggedTake } from '@/api/client'
import { newId } from '@/api/ids'
import { useLogbook } from '@/composables/useLogbook'

/** Three taps a take: roll, cut, and what it is good for; notes in between. */
export function useTakes() {
  const book = useLogbook()
  const { log, tap } = book
  const now = ref(Date.now())
  const timer = setInterval(() => (now.value = Date.now()), 500)
  onScopeDispose(() => clearInterval(timer))

  const running = computed(() => log.value?.takes.find(({ id }) => id === log.value?.running))
  /** The newest first; struck ones too, as they can be brought back. */
  const takes = computed(() => [...(log.value?.takes ?? [])].reverse())
  const last = computed(() => takes.value.find(({ struck }) => !struck))
  const elapsed = computed(() =>
    running.value ? Math.max(0, Math.floor((now.value - Date.parse(running.value.begins)) / 1000)) : 0,
  )

  function roll(slate?: string) {
    const next = log.value?.next
    if (!next || running.value) return
    const wanted = slate?.trim() || next.slate
    const number =
      wanted === next.slate
        ? next.number
        : (log.value?.takes.filter((take) => take.slate === wanted).length ?? 0) + 1
    tap({ act: 'roll', take: newId(), slate: wanted, number })
  }
  const nextSetUp = () => roll(log.value?.next_set_up.slate)
  function cut(status?: LoggedTake['status']) {
    const take = running.value
    if (!take) return
    tap({ act: 'cut', take: take.id })
    if (status) tap({ act: 'status', take: take.id, status })
  }
  const status = (take: LoggedTake, wanted: LoggedTake['status']) =>
    tap({ act: 'status', take: take.id, status: take.status === wanted ? 'open' : wanted })
  const fault = (take: LoggedTake | undefined, text: string, device: string) => {
    if (take && text.trim()) tap({ act: 'fault', take: take.id, text: text.trim(), device })
  }
  const note = (take: LoggedTake | undefined, text: string, track = '') => {
    if (take && text.trim()) tap({ act: 'note', take: take.id, text: text.trim(), track })
  }
  const correct = (
    take: LoggedTake,
    change: { slate?: string; number?: number; timecode?: string; text?: string },
  ) => tap({ act: 'correct', take: take.id, ...change })
  const strike = (take: LoggedTake) => tap({ act: 'strike', take: take.id, text: take.struck ? 'back' : '' })
  const did = (kind: 'room-tone' | 'line-up') => tap({ act: 'done', kind })

  return {
    ...book,
    running,
    takes,
    last,
    elapsed,
    roll,
    nextSetUp,
    cut,
    status,
    note,
    fault,
    correct,
    strike,
    did,
  }
}
