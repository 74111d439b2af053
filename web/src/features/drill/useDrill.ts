import { computed, shallowRef, watch } from 'vue'

import {
  api,
  type Drill,
  type DrillAsked,
  type DrillLadders,
  type Example,
  type Training,
} from '@/api/client'
import { newId } from '@/api/ids'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'
import { useSettings } from '@/stores/settings'

const SEEDS = 1_000_000

/** A drill that is played: what was looked at, the answer, and how it was judged. */
export function useDrill(id: () => string) {
  const drill = shallowRef<Drill | null>(null)
  const training = shallowRef<Training | null>(null)
  const examples = shallowRef<readonly Example[]>([])
  const ladders = shallowRef<DrillLadders | null>(null)
  const settings = useSettings()
  const { problem, isBusy, attempt } = useAttempt()
  const reading = useLatest()
  const comparing = useLatest()

  /** The id of a drill with this number, or with one that is drawn; in a rig of its own, or hidden in the job. */
  async function begin(seed: number | null, asked: Omit<DrillAsked, 'seed' | 'who'>): Promise<string | null> {
    const number = seed ?? Math.floor(Math.random() * SEEDS)
    const made = await attempt(() => api.beginDrill(newId(), { ...asked, seed: number, who: settings.who }))
    return made?.id ?? null
  }
  /** A job with the rig of a drill that is over, and its fault. */
  async function asJob() {
    const now = drill.value
    return now && (await attempt(() => api.jobOfDrill(now.id, newId())))
  }
  async function look(probe: string) {
    const now = drill.value
    if (!now || now.judged) return
    drill.value = (await attempt(() => api.doProbe(now.id, probe, now.seen.length))) ?? drill.value
  }
  async function answer(text: string, givesUp = false) {
    const now = drill.value
    if (!now || now.judged) return
    drill.value =
      (await attempt(() => api.answerDrill(now.id, text, now.wrong.length, givesUp))) ?? drill.value
  }
  /** What can be done, by device and cable, in the order of the sound. */
  const groups = computed(() => {
    const found = new Map<string, Drill['probes']>()
    for (const probe of drill.value?.probes ?? [])
      found.set(probe.group, [...(found.get(probe.group) ?? []), probe])
    return [...found]
  })

  watch(
    id,
    (now) => {
      drill.value = null
      problem.value = ''
      if (now)
        void reading.ask(
          () => api.drill(now),
          (found) => (drill.value = found),
        )
      else
        void reading.ask(
          () => Promise.all([api.training(), api.examples()]),
          ([found, some]) => {
            training.value = found
            examples.value = some
          },
        )
    },
    { immediate: true },
  )
  /** Once it is over: what the faults did to the levels. */
  watch(drill, (now) => {
    if (!now?.judged) ladders.value = null
    else if (!ladders.value)
      void comparing.ask(
        () => api.drillLadders(now.id),
        (found) => (ladders.value = found),
      )
  })
  watch(reading.problem, (words) => (problem.value = words))
  return { drill, training, examples, ladders, groups, problem, isBusy, begin, look, answer, asJob }
}
