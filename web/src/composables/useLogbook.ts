import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'

import { ApiProblem, api, wordsOf, type Log, type LogEntry, type LoggedTake } from '@/api/client'
import { newId } from '@/api/ids'
import { useJob } from '@/stores/job'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'
import { usePolling } from './usePolling'

const LOOK_MS = 5000 // beside what is told at once; and for a telephone that hears nothing

interface KeptTap extends Kept {
  readonly entry: LogEntry
}
export type Tap = Partial<LogEntry> & Pick<LogEntry, 'act'>

const boxOf = (job: string) => `log-${job}`

/** A log with the taps that are still on their way, as they will stand in it. */
export function overlaid(log: Log, waiting: readonly LogEntry[]): Log {
  const takes = new Map(log.takes.map((take) => [take.id, take]))
  let { running, next } = log
  for (const entry of waiting) {
    const take = takes.get(entry.take ?? '')
    if (entry.act === 'roll' && !take) {
      takes.set(entry.take ?? '', rolling(entry))
      running = entry.take ?? ''
      const number = (entry.number ?? 0) + 1
      next = { slate: entry.slate ?? '', number, label: `${entry.slate}-${number}` }
    } else if (take) {
      if (entry.act === 'cut' && !take.ends) {
        takes.set(take.id, { ...take, ends: entry.made })
        if (running === take.id) running = ''
      } else if (entry.act === 'status') takes.set(take.id, { ...take, ...marked(entry.status ?? 'open') })
      else if (entry.act === 'strike') takes.set(take.id, { ...take, struck: !entry.text })
      else if (entry.act === 'note' || entry.act === 'fault')
        takes.set(take.id, { ...take, notes: [...take.notes, noted(entry, log)] })
    }
  }
  const rolled = new Set(waiting.filter(({ act }) => act === 'roll').map(({ slate }) => slate))
  const set_ups_to_come = (log.set_ups_to_come ?? []).filter(({ slate }) => !rolled.has(slate))
  const next_set_up = set_ups_to_come[0] ?? log.next_set_up
  return { ...log, takes: [...takes.values()], running, next, next_set_up, set_ups_to_come }
}

/** Its words come with the answer; until then its name says it. */
const marked = (status: LoggedTake['status']) => ({
  status,
  status_words: status === 'open' ? '' : status.replace('-', ' '),
})

const rolling = (entry: LogEntry): LoggedTake => ({
  ...{ id: entry.take ?? '', slate: entry.slate ?? '', number: entry.number ?? 0, begins: entry.made },
  ...{ label: `${entry.slate}-${entry.number}`, ends: '', clock: '', timecode: entry.timecode ?? '' },
  ...{ end_timecode: '', seconds: null, length: '', status: 'open' as const, status_words: '', text: '' },
  ...{ who: entry.who ?? '', struck: false, revision: 0, notes: [], corrections: [] },
})

const noted = (entry: LogEntry, log: Log): LoggedTake['notes'][number] => {
  const device = log.devices?.find(({ id }) => id === entry.device)
  return {
    ...{ at: entry.made, clock: '', text: entry.text ?? '', where: entry.track || device?.label || '' },
    ...{ track: entry.track || device?.track || '', symptom: '', is_fault: entry.act === 'fault' },
    who: entry.who ?? '',
  }
}

/** The log of the job, shared with everybody who logs; taps are kept until the program has answered. */
export function useLogbook() {
  const job = useJob()
  const settings = useSettings()
  const served = shallowRef<Log | null>(null)
  const problem = ref('')
  const id = computed(() => job.newest?.job ?? '')
  const waiting = computed<readonly LogEntry[]>(() =>
    kept<KeptTap>(boxOf(id.value)).map(({ entry }) => entry),
  )
  const log = computed(() => served.value && overlaid(served.value, waiting.value))

  /** Deliver what waits in its order, then see what the others logged. */
  async function look() {
    const mine = id.value
    if (!mine) return
    const sent = kept<KeptTap>(boxOf(mine))
    try {
      if (!served.value && sent.length) served.value = await api.log(mine) // shown before anything is delivered
      const entries = sent.map(({ entry }) => entry)
      const now = entries.length ? await api.addToLog(mine, entries) : await api.log(mine)
      sent.forEach(drop)
      if (id.value === mine && now.seq >= (served.value?.seq ?? 0)) served.value = now
      problem.value = ''
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 403) sent.forEach(drop) // this key is not for that
      problem.value = wordsOf(error)
    }
  }
  const looking = usePolling(look, LOOK_MS)

  function tap(given: Tap): string {
    const entry: LogEntry = {
      ...{ who: settings.who, take: '', slate: '', number: 0, status: 'open', text: '', track: '' },
      ...{ kind: '', device: '', left: 1, timecode: '', ends: null, level_dbfs: 0 },
      ...{ id: newId(), made: new Date().toISOString() },
      ...given,
    }
    put<KeptTap>({ box: boxOf(id.value), id: entry.id, order: nextOrder(), entry })
    void looking.now()
    return entry.take ?? ''
  }

  watch(id, () => (served.value = null))
  watch([id, () => job.logNews, () => job.newest?.revision], () => void looking.now(), { immediate: true })
  onMounted(() => window.addEventListener('online', looking.now))
  onBeforeUnmount(() => window.removeEventListener('online', looking.now))
  return { log, waiting, problem, tap, look: looking.now }
}
