import { computed, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type GainPlan, type Pin } from '@/api/client'
import { useJob } from '@/stores/job'

const same = (pin: Pin, other: Pin) => pin.device === other.device && pin.control === other.control

/** The gain plan of the job as it stands, made anew when it changes or something is pinned. */
export function useGainPlan() {
  const job = useJob()
  const plan = shallowRef<GainPlan | null>(null)
  const pins = ref<Pin[]>([])
  const busy = ref(false)
  const problem = ref('')
  let turn = 0

  async function make() {
    const mine = ++turn
    if (!job.newest) return
    busy.value = true
    try {
      const found = await api.gainPlan(job.newest.job, pins.value)
      if (mine === turn) [plan.value, problem.value] = [found, '']
    } catch (error) {
      if (mine === turn) problem.value = wordsOf(error)
    } finally {
      if (mine === turn) busy.value = false
    }
  }
  watch([() => job.newest?.revision, pins], () => void make(), { immediate: true })

  const pin = (wanted: Pin) => {
    if (!pins.value.some((known) => same(known, wanted))) pins.value = [...pins.value, wanted]
  }
  const release = () => (pins.value = [])

  /** Steps by device, in the order of the work. */
  const byDevice = computed(() => {
    const names = new Map(job.newest?.devices.map(({ id, label }) => [id, label]))
    const found: { device: string; label: string; steps: GainPlan['steps'] }[] = []
    for (const step of plan.value?.steps ?? []) {
      const last = found.at(-1)
      if (last?.device === step.device) last.steps.push(step)
      else found.push({ device: step.device, label: names.get(step.device) ?? '', steps: [step] })
    }
    return found
  })

  const apply = () => job.edit((plan.value?.steps ?? []).map(({ edit }) => edit))
  return { plan, pins, busy, problem, byDevice, pin, release, apply }
}
