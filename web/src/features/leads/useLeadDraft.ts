import { computed, reactive, ref, shallowRef, watch } from 'vue'

import { api, type Judged, type LeadDraft, type StockLead, type WiringDraft } from '@/api/client'
import { useLatest } from '@/composables/useLatest'

export type End = 'sending' | 'receiving'

const EMPTY: WiringDraft = { wires: [], bridges: [], windings: [] }

export const firstDraft = (): LeadDraft => ({
  label: 'My cable',
  sending: { connector: 'xlr3', gender: 'female' },
  receiving: { connector: 'trs35', gender: 'male' },
  ways: { '': { ...EMPTY, wires: [{ near: '1', far: 'S', ohm: 0, blocks_dc: false }] } },
  short_m: 0.3,
})

/** A copy that can be changed without the other knowing. */
export const copyOf = (lead: LeadDraft | StockLead): LeadDraft =>
  JSON.parse(
    JSON.stringify({
      label: lead.label,
      sending: lead.sending,
      receiving: lead.receiving,
      ways: lead.ways,
      short_m: lead.short_m ?? null,
    }),
  ) as LeadDraft

export type LeadMaking = ReturnType<typeof useLeadDraft>

/** A lead that is being made, and what the server says of it after every change. */
export function useLeadDraft() {
  const draft = ref<LeadDraft>(firstDraft())
  const branch = ref('')
  const judged = shallowRef<Judged | null>(null)
  const { problem, ask } = useLatest()
  const way = computed<WiringDraft>(() => draft.value.ways[branch.value] ?? EMPTY)
  const twoWays = computed(() => 'L' in draft.value.ways)
  watch(
    draft,
    (lead) =>
      void ask(
        () => api.judge(lead),
        (found) => (judged.value = found),
      ),
    { deep: true, immediate: true },
  )

  function take(lead: LeadDraft | StockLead) {
    draft.value = copyOf(lead)
    branch.value = 'L' in lead.ways ? 'L' : ''
  }

  const change = (changed: Partial<WiringDraft>) =>
    (draft.value.ways[branch.value] = { ...EMPTY, ...way.value, ...changed })
  const wires = computed(() => way.value.wires ?? [])
  const bridges = computed(() => way.value.bridges ?? [])
  const isJoined = (near: string, far: string) =>
    wires.value.some((wire) => wire.near === near && wire.far === far)

  function toggle(near: string, far: string) {
    const kept = wires.value.filter((wire) => wire.near !== near || wire.far !== far)
    change({ wires: isJoined(near, far) ? kept : [...kept, { near, far, ohm: 0, blocks_dc: false }] })
  }

  const describe = (changed: Partial<Pick<LeadDraft, 'label' | 'short_m'>>) =>
    Object.assign(draft.value, changed)
  const setBranch = (name: string) => (branch.value = name)
  const setGender = (end: End, gender: string) =>
    (draft.value[end] = { ...draft.value[end], gender: gender as LeadDraft['sending']['gender'] })

  function setConnector(end: End, connector: string) {
    draft.value[end] = { ...draft.value[end], connector }
    for (const name of Object.keys(draft.value.ways)) draft.value.ways[name] = { ...EMPTY } // its contacts are others
  }

  function setTwoWays(on: boolean) {
    const first = Object.values(draft.value.ways)[0] ?? EMPTY
    draft.value.ways = on ? { L: first, R: { ...EMPTY } } : { '': first }
    branch.value = on ? 'L' : ''
  }

  return reactive({
    draft,
    branch,
    judged,
    problem,
    wires,
    bridges,
    twoWays,
    take,
    toggle,
    isJoined,
    change,
    describe,
    setBranch,
    setGender,
    setConnector,
    setTwoWays,
  })
}
