import { ref } from 'vue'

import { api } from '@/api/client'

/** The address of a page for a telephone: null where the program answers its own machine alone; not known without an answer. */
export function useNearby(page: string) {
  const link = ref<string | null>(null)
  const isKnown = ref(false)
  api.nearby(page).then(
    (found) => {
      link.value = found.link
      isKnown.value = true
    },
    () => (isKnown.value = false), // without a connection there is nothing to tell
  )
  return { link, isKnown }
}
