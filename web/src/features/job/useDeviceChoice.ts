import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type Edit, type JobClass } from '@/api/client'
import { useCatalogue } from '@/stores/catalogue'
import { useOwnEquipment } from '@/stores/equipment'
import { useJob } from '@/stores/job'

/** What a device may be added as: classes of one's own first, then the built-in ones; and the job's copies of one's own. */
export function useDeviceChoice() {
  const job = useJob()
  const catalogue = useCatalogue()
  const own = useOwnEquipment()
  const copies = shallowRef<readonly JobClass[]>([])
  const problem = ref('')

  async function attempt(action: () => Promise<unknown>) {
    problem.value = ''
    try {
      await action()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  const mine = computed(() => {
    const inJob = (job.state?.plan.classes ?? []).map(({ id, label }) => ({ id, label }))
    const kept = (own.classes ?? []).filter(({ page }) => page.of === 'device').map(({ page }) => page)
    return [...inJob, ...kept.filter(({ id }) => !inJob.some((item) => item.id === id))]
  })
  const kinds = computed(() => [
    ...(mine.value.length ? [['My equipment', mine.value] as const] : []),
    ...catalogue.kinds,
  ])

  /** The edit that takes a class of My equipment into the job. */
  const taking = (id: string) => own.classes?.find(({ page }) => page.id === id)?.takes as Edit | undefined

  async function add(id: string, label: string) {
    const isThere = job.state?.plan.classes.some((item) => item.id === id)
    const brought = isThere ? undefined : taking(id)
    const device = { kind: 'add-device' as const, class_id: id, label: label || null }
    return job.edit(brought ? [brought, device] : [device])
  }

  const keep = (id: string) =>
    attempt(async () => {
      await api.keepClass(job.state?.job ?? '', id)
      await own.load()
      await look()
    })

  /** The job's copy brought to what My equipment says now. */
  async function renew(id: string) {
    const edit = taking(id)
    if (edit) await job.edit([edit])
  }

  async function look() {
    const id = job.state?.job
    copies.value = id ? await api.jobClasses(id) : []
  }
  watch(
    () => [job.state?.job, job.state?.revision],
    () => void attempt(look),
    { immediate: true },
  )
  void catalogue.load()
  void attempt(own.load)
  return { kinds, copies, problem, add, keep, renew }
}
