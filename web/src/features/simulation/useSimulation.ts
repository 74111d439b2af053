import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { addresses } from '@/api/addresses'
import { api, type AskedOfSimulation, type SimulatedPoint, type SimulatedSeen } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

/** What the sources of the simulation can do; `tone` is sent by the device before the track. */
export const PLAYS = [
  { id: 'voice', label: 'speak', asked: { play: 'voice' } },
  { id: 'laugh', label: 'speak, and laugh once', asked: { play: 'laugh' } },
  { id: 'crowd', label: 'murmur without a pause', asked: { play: 'crowd' } },
  { id: 'tone', label: 'give a tone each', asked: { play: 'tone' } },
  { id: 'bell', label: 'are a bell that is struck', asked: { play: 'bell' } },
  { id: 'clap', label: 'clap once', asked: { play: 'clap' } },
  { id: 'nobody', label: 'are silent: only the room', asked: { play: 'nobody' } },
  { id: 'wind', label: 'are silent, in gusts of wind', asked: { play: 'wind' } },
  { id: 'sender', label: 'are silent, the sender gives tone', asked: { play: 'nobody', tone: true } },
] as const satisfies readonly { id: string; label: string; asked: AskedOfSimulation }[]

/** A point of a chain in the simulation, seen and heard, anew with every state of the job. */
export function useSimulation(track: Ref<string>) {
  const job = useJob()
  const points = shallowRef<readonly SimulatedPoint[]>([])
  const point = ref(-1)
  const play = ref<(typeof PLAYS)[number]['id']>('voice')
  const seen = shallowRef<SimulatedSeen | null>(null)
  const { problem, ask } = useLatest()
  const loose = ref('')
  const asked = computed((): AskedOfSimulation => {
    const played = PLAYS.find(({ id }) => id === play.value)?.asked
    const isOnTheWay = points.value.some(({ run }) => run && run === loose.value)
    return isOnTheWay ? { ...played, loose: loose.value } : { ...played }
  })
  const sound = computed(() =>
    job.newest && point.value >= 0
      ? // The state in the address: what was heard of an earlier one is not played again.
        addresses.simulated(job.newest.job, track.value, point.value, asked.value, job.newest.revision)
      : '',
  )

  function look() {
    const id = job.newest?.job
    if (!id || !track.value || point.value < 0) return
    void ask(
      () => api.simulatedSeen(id, track.value, point.value, asked.value),
      (found) => (seen.value = found),
    )
  }
  watch(
    () => [job.newest?.job, track.value, job.newest?.revision] as const,
    ([id, wanted]) =>
      id &&
      wanted &&
      void ask(
        () => api.simulatedPoints(id, wanted),
        (found) => {
          points.value = found
          // Listen where the sound ends up, unless a point was chosen that is still there.
          if (point.value < 0 || point.value >= found.length) point.value = found.length - 1
          else look()
        },
      ),
    { immediate: true },
  )
  watch(track, () => (point.value = -1))
  watch([point, play, loose], look)
  return { points, point, play, loose, seen, problem, sound }
}
