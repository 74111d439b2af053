import { computed, ref, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type AskedOfBench, type BenchPoint, type BenchSeen } from '@/api/client'
import { useJob } from '@/stores/job'

/** What the sources of the bench can do; `tone` is sent by the device before the track. */
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
] as const satisfies readonly { id: string; label: string; asked: AskedOfBench }[]

/** A point of a chain on the bench, seen and heard, anew with every state of the job. */
export function useBench(track: Ref<string>) {
  const job = useJob()
  const points = shallowRef<readonly BenchPoint[]>([])
  const point = ref(-1)
  const play = ref<(typeof PLAYS)[number]['id']>('voice')
  const seen = shallowRef<BenchSeen | null>(null)
  const problem = ref('')
  let turn = 0
  const loose = ref('')
  const asked = computed((): AskedOfBench => {
    const played = PLAYS.find(({ id }) => id === play.value)?.asked
    const isOnTheWay = points.value.some(({ run }) => run && run === loose.value)
    return isOnTheWay ? { ...played, loose: loose.value } : { ...played }
  })
  const sound = computed(() =>
    job.newest && point.value >= 0
      ? // The state in the address: what was heard of an earlier one is not played again.
        api.benchSound(job.newest.job, track.value, point.value, asked.value, job.newest.revision)
      : '',
  )

  async function attempt(action: (id: string, mine: number) => Promise<void>) {
    if (!job.newest || !track.value) return
    const mine = ++turn
    try {
      await action(job.newest.job, mine)
      if (mine === turn) problem.value = ''
    } catch (error) {
      if (mine === turn) problem.value = wordsOf(error)
    }
  }
  const look = () =>
    attempt(async (id, mine) => {
      if (point.value < 0) return
      const found = await api.benchSeen(id, track.value, point.value, asked.value)
      if (mine === turn) seen.value = found
    })
  watch(
    [track, () => job.newest?.revision],
    () =>
      void attempt(async (id, mine) => {
        const found = await api.benchPoints(id, track.value)
        if (mine !== turn) return
        points.value = found
        // Listen where the sound ends up, unless a point was chosen that is still there.
        if (point.value < 0 || point.value >= found.length) point.value = found.length - 1
        else await look()
      }),
    { immediate: true },
  )
  watch(track, () => (point.value = -1))
  watch([point, play, loose], () => void look())
  return { points, point, play, loose, seen, problem, sound }
}
