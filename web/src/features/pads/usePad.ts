import { ref, shallowRef, watch, type Ref } from 'vue'

import { api, wordsOf, type Judged, type Pad, type PadWish, type WantedPad } from '@/api/client'

/** A pad being designed: for a run where one is named, and worked out anew after every change. */
export function usePad(job: Ref<string | undefined>, run: Ref<string>) {
  const wanted = shallowRef<WantedPad | null>(null)
  const wish = ref<PadWish | null>(null)
  const pad = shallowRef<Pad | null>(null)
  const judged = shallowRef<Judged | null>(null)
  const problem = ref('')
  let turn = 0

  async function attempt(action: (mine: number) => Promise<void>) {
    const mine = ++turn
    try {
      await action(mine)
      if (mine === turn) problem.value = ''
    } catch (error) {
      if (mine === turn) problem.value = wordsOf(error)
    }
  }

  /** The layout that can be built into a lead, kept where it can be. */
  function layoutFor(fitting: string, now: PadWish['layout']): PadWish['layout'] {
    const layouts = wanted.value?.fittings.find(({ id }) => id === fitting)?.layouts as PadWish['layout'][]
    return !layouts || layouts.includes(now) ? now : (layouts[0] ?? now)
  }

  watch(
    [job, run],
    () =>
      void attempt(async () => {
        if (!job.value) return
        const found = await api.padFor(job.value, run.value)
        wanted.value = found
        const { loss_db, source_ohm, load_ohm, fitting, length_m } = found
        const layout = layoutFor(fitting, 'u')
        wish.value = { loss_db, source_ohm, load_ohm, fitting, length_m, layout, series: 'E24' }
      }),
    { immediate: true },
  )
  watch(wish, (asked) => {
    if (!asked) return
    void attempt(async (mine) => {
      const found = await api.pad(asked)
      const uses = found.lead ? await api.judge(found.lead) : null
      if (mine === turn) [pad.value, judged.value] = [found, uses]
    })
  })

  function change(changed: Partial<PadWish>) {
    if (!wish.value) return
    const next = { ...wish.value, ...changed }
    if (changed.series) delete next.tolerance_percent // each series has a tolerance of its own
    wish.value =
      'fitting' in changed ? { ...next, layout: layoutFor(next.fitting ?? '', next.layout ?? 'u') } : next
  }

  return { wanted, wish, pad, judged, problem, change }
}
