import type { Ref } from 'vue'

import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'

/** Every form of a typed line, once it is wanted. */
export const useGrammar = (isWanted: Ref<boolean>) =>
  useFetched(
    () => isWanted.value || null,
    () => api.grammar(),
  )
