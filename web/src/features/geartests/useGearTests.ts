import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type GearAnswer, type GearTest } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useMeasured } from '@/composables/useMeasured'
import { useJob } from '@/stores/job'

/** The tests of the job's devices; what an answer finds is kept in the job and in My equipment. */
export function useGearTests() {
  const job = useJob()
  const tests = shallowRef<readonly GearTest[] | null>(null)
  const told = ref<{ test: string; words: string } | null>(null)
  const busy = ref('') // id of the test that is being worked on
  const wrong = ref<{ test: string; words: string } | null>(null)
  const { problem, ask } = useLatest()
  const measured = useMeasured()

  watch(
    () => [job.newest?.job, job.newest?.revision] as const,
    ([id]) =>
      id &&
      void ask(
        () => api.gearTests(id),
        (found) => (tests.value = found),
      ),
    { immediate: true },
  )

  const devices = computed(() => {
    const found = new Map<string, { id: string; label: string; tests: GearTest[] }>()
    for (const test of tests.value ?? []) {
      const device = found.get(test.device) ?? { id: test.device, label: test.device_label, tests: [] }
      device.tests.push(test)
      found.set(test.device, device)
    }
    return [...found.values()]
  })

  async function working(test: GearTest, action: (id: string) => Promise<void>) {
    if (!job.newest || busy.value) return
    busy.value = test.id
    wrong.value = told.value = null
    try {
      await action(job.newest.job)
    } catch (error) {
      wrong.value = { test: test.id, words: wordsOf(error) }
    } finally {
      busy.value = ''
    }
  }

  /**
   * What was found goes into the job, and into My equipment unless somebody has changed the original meanwhile; a simulated
   * device says nothing of a real one.
   */
  async function keep(id: string, test: GearTest, answer: Omit<GearAnswer, 'test'>, isSimulated = false) {
    const found = await api.answerGearTest(id, { ...answer, test: test.id })
    const before = (await api.jobClasses(id)).find((item) => item.id === found.class_id)
    if (!(await job.edit(found.edits))) return
    const isApart = before?.original === 'changed'
    if (!isApart && !isSimulated) await api.keepClass(id, found.class_id)
    const apart = isApart ? 'Kept in this job; My equipment has another version.' : 'Kept in My equipment.'
    const where = isSimulated ? 'Simulated: kept in this job alone.' : apart
    told.value = { test: test.id, words: `${found.sentence} ${where}` }
  }

  const answer = (test: GearTest, given: Omit<GearAnswer, 'test'>) =>
    working(test, (id) => keep(id, test, given))

  /** A recording answers; what the meter showed beside it goes with it. */
  const send = (
    test: GearTest,
    file: File,
    more: { marks?: number[]; value?: number; scale?: [number, number] },
  ) =>
    working(test, async (id) => {
      const settings = more.marks?.length ? { settings: more.marks, target_dbfs: -20 } : {}
      const sent = await api.sendRecording(id, file, { test: test.id, track: test.track, ...settings })
      const done = await measured(id, sent)
      await keep(id, test, { recording: done.id, value: more.value ?? null, scale: more.scale ?? null })
    })

  /** The simulated devices make the recording, and their meter is read beside it. */
  const simulate = (test: GearTest) =>
    working(test, async (id) => {
      const made = await measured(id, await api.simulateGearTest(id, test.id))
      const shown = test.kind === 'meter' ? (made.asked.shown?.[0] ?? null) : null
      await keep(id, test, { recording: made.id, value: shown }, true)
    })

  return { devices, tests, told, busy, wrong, problem, answer, send, simulate }
}
