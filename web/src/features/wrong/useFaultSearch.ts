import { computed, ref, shallowRef, watch } from 'vue'

import { api, type FaultSearch } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

interface Given {
  readonly test: string
  readonly yes: boolean | null
  readonly asked: string // the question, to be read again
}

/**
 * A search for what is wrong: a symptom on a track, and the answers so far; each answer asks what to try next. `begun`: with
 * what it begins.
 */
export function useFaultSearch(begun = { symptom: '', track: '' }) {
  const job = useJob()
  const { problem, busy, ask } = useLatest()
  const found = shallowRef<FaultSearch | null>(null)
  const symptom = ref(begun.symptom)
  const text = ref('')
  const track = ref(begun.track)
  const given = ref<readonly Given[]>([])

  watch([symptom, text, track], () => (given.value = []), { flush: 'sync' })
  watch(
    [symptom, text, track, given, () => job.newest?.revision],
    () => {
      const id = job.newest?.job
      void ask(
        async () =>
          id && (symptom.value || text.value)
            ? await api.searchFault(id, {
                symptom: (symptom.value || null) as FaultSearch['symptom'] | null,
                text: text.value,
                track: track.value,
                answers: given.value.map(({ test, yes }) => ({ test, yes })),
              })
            : null,
        (now) => (found.value = now),
      )
    },
    { immediate: true },
  )

  function answer(yes: boolean | null) {
    const next = found.value?.next
    if (next) given.value = [...given.value, { test: next.id, yes, asked: `${next.does} ${next.asks}` }]
  }
  const back = () => (given.value = given.value.slice(0, -1))
  const tracks = computed(
    () =>
      job.state?.devices.flatMap((device) =>
        device.tracks.map(({ id, bus_label }) => ({ id, label: `${device.label}, ${bus_label}` })),
      ) ?? [],
  )
  return { found, problem, busy, symptom, text, track, tracks, given, answer, back }
}
