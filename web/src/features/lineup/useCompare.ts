import { computed, reactive, ref, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type Comparison, type Recording, type OptionName } from '@/api/client'
import { useJob } from '@/stores/job'
import { useMeasured } from '@/composables/useMeasured'

const MOST = 6

/** The matching options of a run, which recording was made by each, and the result of comparing them. */
export function useCompare(run: Ref<string>, recordings: Ref<readonly Recording[]>) {
  const job = useJob()
  const options = shallowRef<readonly OptionName[]>([])
  const chosen = reactive<Record<string, string>>({})
  const compared = shallowRef<readonly Comparison[]>([])
  const problem = ref('')
  const busy = ref(false)
  const usable = computed(() => recordings.value.filter(({ state }) => state === 'done'))
  const measured = useMeasured()
  const given = computed(() => Object.entries(chosen).filter(([, recording]) => recording))

  async function attempt(action: (id: string) => Promise<void>) {
    if (!job.newest || busy.value) return
    busy.value = true
    try {
      problem.value = ''
      await action(job.newest.job)
    } catch (error) {
      problem.value = wordsOf(error)
    } finally {
      busy.value = false
    }
  }

  const filled = new Set<string>() // options that had a recording: one that is empty since was emptied by hand

  const take = (option: string, recording: string) => {
    chosen[option] = recording
    if (recording) filled.add(option)
  }

  /** What was recorded for an option in the simulation is taken for it; the newest, since the list begins with that. */
  function fill() {
    for (const { id } of options.value) {
      const isThere = usable.value.some((item) => item.id === chosen[id])
      if (isThere || (chosen[id] === '' && filled.has(id))) continue
      take(id, usable.value.find(({ asked }) => asked.run === run.value && asked.option === id)?.id ?? '')
    }
  }

  const load = () =>
    attempt(async (id) => {
      options.value = await api.optionNames(id, run.value)
      compared.value = []
      for (const key of Object.keys(chosen)) Reflect.deleteProperty(chosen, key)
      filled.clear()
      fill()
    })

  const record = () =>
    attempt(async (id) => {
      const wanted = options.value.slice(0, MOST).map((option) => option.id)
      const made = await api.recordOptions(id, run.value, wanted)
      await Promise.all(made.map((item) => measured(id, item)))
      made.forEach((item, index) => take(wanted[index] ?? '', item.id))
      compared.value = await api.compareOptions(id, run.value, Object.fromEntries(given.value))
    })

  const compare = () =>
    attempt(async (id) => {
      compared.value = await api.compareOptions(id, run.value, Object.fromEntries(given.value))
    })

  watch(
    run,
    () => {
      options.value = []
      compared.value = []
    },
    { flush: 'sync' },
  )
  watch(usable, fill)
  return { options, chosen, compared, problem, busy, usable, given, load, record, compare }
}
