import { computed, reactive, ref } from 'vue'

import { api, wordsOf, type Datasheet } from '@/api/client'
import type { Item } from './schema'

type Mode = Item & { id: string; label: string; signal: string }
type Input = Item & { id: string; label: string; modes: Mode[] }

/** What a manual prints of an input, read into one position of it. `values`: the class as it is; `change`: takes it changed. */
export function useDatasheet(values: () => Item, change: (now: Item) => void) {
  const at = ref('')
  const problem = ref('')
  const sheet = reactive<
    Omit<Datasheet, 'mode' | 'lowest_db' | 'highest_db'> & { lowest_db?: number; highest_db?: number }
  >({
    step_db: 1,
    most: null,
    most_unit: 'dBu',
    sensitivity: null,
    sensitivity_unit: 'dBu',
    nominal_dbfs: 0,
    ein_dbu: null,
    is_a_weighted: false,
  })

  const inputs = computed(() => (values().inputs ?? []) as Input[])
  /** The positions of all inputs that take a voltage, each as input and position. */
  const positions = computed(() =>
    inputs.value.flatMap((input) =>
      input.modes
        .filter(({ signal }) => signal !== 'digital')
        .map((mode) => ({ key: `${input.id} ${mode.id}`, label: `${input.label}, ${mode.label}`, mode })),
    ),
  )
  const isReady = computed(
    () => Boolean(at.value) && sheet.lowest_db !== undefined && sheet.highest_db !== undefined,
  )

  /** A field that was emptied holds no number. */
  const told = (value: number | null | undefined) => (typeof value === 'number' ? value : null)

  async function apply() {
    const position = positions.value.find(({ key }) => key === at.value)
    const { lowest_db, highest_db, ...rest } = sheet
    if (!position || lowest_db === undefined || highest_db === undefined) return
    problem.value = ''
    try {
      const printed = {
        most: told(rest.most),
        sensitivity: told(rest.sensitivity),
        ein_dbu: told(rest.ein_dbu),
      }
      const { mode } = await api.readDatasheet({
        ...rest,
        ...printed,
        lowest_db,
        highest_db,
        mode: position.mode,
      })
      const put = (input: Input) => ({
        ...input,
        modes: input.modes.map((old) => (`${input.id} ${old.id}` === at.value ? mode : old)),
      })
      change({ ...values(), inputs: inputs.value.map(put) })
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  return { at, sheet, positions, problem, isReady, apply }
}
