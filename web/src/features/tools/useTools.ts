import { computed, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api } from '@/api/client'
import { useLatest } from '@/composables/useLatest'

const DEFAULTS: Readonly<Record<string, string>> = {
  value: '-10',
  unit: 'dBV',
  to: 'dBu',
  measure: 'frames',
  length: '5',
  fps: '25',
  tc: '10:00:00:00',
  add: '',
  tofps: '',
  a: '1',
  b: '20',
  hours: '10',
  level: '-20',
  hz: '1000',
}

/** What the tools are asked, kept in the address so that a link to it gives the same answer to a colleague. */
export function useFields() {
  const route = useRoute()
  const router = useRouter()
  const field = (name: string) =>
    computed({
      get: () => String(route.query[name] ?? DEFAULTS[name] ?? ''),
      set: (value: string) => void router.replace({ query: { ...route.query, [name]: value } }),
    })
  return Object.fromEntries(Object.keys(DEFAULTS).map((name) => [name, field(name)]))
}

/** The answer of one tool, asked anew when what it is asked changes. */
export function useTool(key: () => string, ask: () => Promise<{ words: string }>) {
  const { problem, ask: latest } = useLatest()
  const words = shallowRef('')
  watch(key, () => void latest(ask, (found) => (words.value = found.words.replace(/-(?=\d)/g, '−'))), {
    immediate: true,
  })
  return computed(() => ({ words: problem.value || words.value, isWrong: problem.value !== '' }))
}

export const tools = api.tools
