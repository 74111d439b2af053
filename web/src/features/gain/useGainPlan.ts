import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'

import { api, type GainPlan, type Pin } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useJob } from '@/stores/job'

const same = (pin: Pin, other: Pin) => pin.device === other.device && pin.control === other.control

/** The gain plan of the job as it stands, made anew when it changes or something is pinned. */
export function useGainPlan() {
  const job = useJob()
  const plan = shallowRef<GainPlan | null>(null)
  const pins = ref<Pin[]>([])
  const { problem, busy, ask } = useLatest()
  let asked = 0 // of several only the last is wanted, and none once the page has gone
  const cancel = () => (asked += 1)
  onScopeDispose(cancel)

  watch(
    () => [job.newest?.job, job.newest?.revision, pins.value] as const,
    ([id]) =>
      id &&
      void ask(
        () => {
          const mine = ++asked
          return api.gainPlan(id, pins.value, () => mine === asked)
        },
        (found) => (plan.value = found),
      ),
    { immediate: true },
  )

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
  return { plan, pins, busy, cancel, problem, byDevice, pin, release, apply }
}
