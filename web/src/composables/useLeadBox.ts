import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'

/** Connectors and cables to make one's own from. */
export const useLeadBox = () =>
  useFetched(
    () => true,
    () => api.leadBox(),
  )
