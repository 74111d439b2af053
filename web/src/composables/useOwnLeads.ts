import { computed } from 'vue'

import { api, wordsOf, type Edit, type LeadDraft } from '@/api/client'
import { useJob } from '@/stores/job'

/** Leads of one's own: saved with the job, and put into a run. */
export function useOwnLeads() {
  const job = useJob()
  const own = computed(() => job.state?.plan.leads ?? [])

  /** Saves a lead, under its id where it has one; the id that it has then, empty where that failed. */
  async function save(lead: LeadDraft, id = ''): Promise<string> {
    const edit: Edit = { kind: 'draw-lead', ...lead, id: id || null }
    if (!(await job.edit([edit]))) return ''
    return id || (own.value.at(-1)?.id ?? '')
  }

  /** Puts a saved lead into a run; says so where it does not fit. */
  async function use(lead: string, run: string): Promise<boolean> {
    if (!job.newest) return false
    try {
      return await job.edit((await api.withLead(job.newest.job, run, lead)).edits)
    } catch (error) {
      job.problem = wordsOf(error)
      return false
    }
  }

  return { own, save, use }
}
