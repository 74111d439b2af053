import { computed, shallowRef, watch, type Ref } from 'vue'

import { addresses } from '@/api/addresses'
import { api, type Sync, type Waves } from '@/api/client'
import { useLatest } from '@/composables/useLatest'

type Clip = Sync['clips'][number]

const SHORTEST_HEARD_S = 2
const LONGEST_HEARD_S = 20

/** The waves of a clip and of what it lies on, `span` seconds from `at`, and where both are heard together. */
export function useWaves(
  job: Readonly<Ref<string>>,
  clip: Readonly<Ref<Clip>>,
  at: Readonly<Ref<number>>,
  span: Readonly<Ref<number>>,
  hasSound: Readonly<Ref<boolean>>,
) {
  const waves = shallowRef<Waves | null>(null)
  const { problem, ask } = useLatest()
  watch(
    [() => [clip.value.other, clip.value.offset_s, clip.value.drift_ppm], at, span],
    () => {
      if (hasSound.value)
        void ask(
          () => api.waves(job.value, clip.value.other, at.value, span.value),
          (found) => (waves.value = found),
        )
      else waves.value = null
    },
    { immediate: true },
  )
  const heard = computed(() => {
    const seconds = Math.min(Math.max(span.value, SHORTEST_HEARD_S), LONGEST_HEARD_S)
    return addresses.clip(job.value, clip.value.other, at.value, seconds, clip.value.offset_s)
  })
  return { waves, problem, heard }
}
