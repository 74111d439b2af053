import { computed, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Judged } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useLeadBox } from '@/composables/useLeadBox'

const FIRST = { from: 'xlr3', to: 'trs35' } as const

/** A cable of the catalogue by its two plugs, and what it does; the address holds what was chosen. */
export function useCable() {
  const route = useRoute()
  const router = useRouter()
  const box = useLeadBox()
  const { problem, ask } = useLatest()
  const judged = shallowRef<Judged | null>(null)
  const from = computed(() => String(route.query['from'] ?? FIRST.from))
  const to = computed(() => String(route.query['to'] ?? FIRST.to))
  const ends = computed(() => box.value?.ends ?? [])
  const cables = computed(() =>
    (box.value?.leads ?? []).filter(
      ({ sending, receiving }) => sending.connector === from.value && receiving.connector === to.value,
    ),
  )
  const cable = computed(() => cables.value.find(({ id }) => id === route.query['cable']) ?? cables.value[0])
  const put = (changed: Record<string, string>) => router.replace({ query: { ...route.query, ...changed } })

  watch(
    cable,
    (chosen) => {
      judged.value = null
      if (!chosen) return
      const { label, sending, receiving, ways, short_m = null } = chosen
      void ask(
        () => api.judge({ label, sending, receiving, ways, short_m }),
        (found) => (judged.value = found),
      )
    },
    { immediate: true },
  )
  return { ends, cables, cable, from, to, judged, problem, put }
}
