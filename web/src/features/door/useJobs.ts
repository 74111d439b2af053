import { ref } from 'vue'

import { api, ApiProblem, wordsOf, type Example, type JobEntry, type JobState } from '@/api/client'
import { newId } from '@/api/ids'

/** All jobs: made, read in and removed. `open` shows one that was made. */
export function useJobs(open: (state: JobState) => Promise<unknown>) {
  const jobs = ref<JobEntry[] | null>(null)
  const examples = ref<Example[]>([])
  const problem = ref('')
  const backedUp = ref<string | null>(null) // when; empty where there is no backup
  const id = newId() // pressed again, or sent again, it is one job

  async function attempt(action: () => Promise<unknown>) {
    problem.value = ''
    try {
      await action()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  const create = (name: string) => attempt(async () => open(await api.create(name.trim(), id)))

  const openExample = (example: string) => attempt(async () => open(await api.openExample(example, newId())))

  const remove = (job: string) =>
    attempt(async () => {
      await api.remove(job)
      jobs.value = await api.jobs()
    })

  /** A plan file as a job of its own. */
  const readIn = (file: File) =>
    attempt(async () => {
      let plan: unknown
      try {
        plan = JSON.parse(await file.text())
      } catch {
        throw new ApiProblem(
          0,
          'file',
          `${file.name} is not a saved plan (.json). To check a recording, choose Check a recording above.`,
        )
      }
      await open(await api.importPlan(plan, newId()))
    })

  void attempt(async () => {
    jobs.value = await api.jobs()
    examples.value = await api.examples()
    backedUp.value = (await api.copies()).copies[0]?.made ?? ''
  })
  return { jobs, examples, problem, backedUp, create, openExample, remove, readIn }
}
