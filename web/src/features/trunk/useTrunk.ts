import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'

import { ApiProblem, api, wordsOf, type Trunk, type TrunkTick } from '@/api/client'
import { usePolling } from '@/composables/usePolling'
import { useJob } from '@/stores/job'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'
import { useStock } from './useStock'

const LOOK_MS = 5000 // others pack too

/** A tick that has not reached the server yet; its id is the line's, so that the newest word on each line counts. */
interface KeptTick extends Kept {
  readonly tick: TrunkTick
}
const boxOf = (job: string) => `pack-${job}`

/** A list with what is still on its way. */
export function overlaid(trunk: Trunk, waiting: readonly TrunkTick[]): Trunk {
  const words = new Map(waiting.map((tick) => [tick.item, tick]))
  const packing = trunk.packing.map((line) => {
    const tick = words.get(line.id)
    return tick ? { ...line, state: tick.state, who: tick.who } : line
  })
  return { ...trunk, packing, packed: packing.filter(({ state }) => state === 'packed').length }
}

/** What the job needs of the trunk, what lies in it, and what has been packed. */
export function useTrunk() {
  const job = useJob()
  const settings = useSettings()
  const served = shallowRef<Trunk | null>(null)
  const { stock, problem, isBusy, attempt, actions: ofStock } = useStock(() => looking.now())
  const chosen = ref<Record<string, string[]>>({})
  const id = computed(() => job.newest?.job ?? '')
  const waiting = computed(() => kept<KeptTick>(boxOf(id.value)).map(({ tick }) => tick))
  const trunk = computed(() => served.value && overlaid(served.value, waiting.value))

  async function look() {
    const mine = id.value
    if (!mine) return
    const sent = kept<KeptTick>(boxOf(mine))
    try {
      const ticks = sent.map(({ tick }) => tick)
      if (ticks.length) await api.tickTrunk(mine, ticks)
      sent.forEach(drop)
      const now = await api.trunkOf(mine, chosen.value)
      if (id.value === mine) served.value = now
      problem.value = ''
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 403) sent.forEach(drop) // this key is not for that
      problem.value = wordsOf(error)
    }
  }
  const looking = usePolling(look, LOOK_MS)

  function tick(item: string, state: TrunkTick['state']) {
    const whole = { item, state, who: settings.who, made: new Date().toISOString() }
    put<KeptTick>({ box: boxOf(id.value), id: item, order: nextOrder(), tick: whole })
    void looking.now()
  }
  function choose(need: string, pieces: string[]) {
    const others = Object.entries(chosen.value).filter(([one]) => one !== need)
    chosen.value = Object.fromEntries(pieces.length ? [...others, [need, pieces]] : others)
    void looking.now()
  }
  const actions = {
    ...ofStock,
    claim: () => attempt(() => api.claimTrunk(id.value, chosen.value)),
    release: () => attempt(() => api.releaseTrunk(id.value)),
  }

  watch(id, () => {
    served.value = null
    chosen.value = {}
  })
  watch([id, () => job.newest?.revision], () => void looking.now(), { immediate: true })
  onMounted(() => window.addEventListener('online', looking.now))
  onBeforeUnmount(() => window.removeEventListener('online', looking.now))
  return { id, trunk, stock, problem, isBusy, waiting, chosen, actions, tick, choose }
}
