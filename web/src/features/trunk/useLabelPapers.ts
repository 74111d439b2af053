import { api } from '@/api/client'
import { useFetched } from '@/composables/useFetched'

/** Label sheets and tapes that there are. */
export const useLabelPapers = (job: () => string) => useFetched(() => job() || null, api.labelPapers)
