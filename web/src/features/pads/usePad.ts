import { ref, shallowRef, watch, type Ref } from 'vue'

import { api, type Judged, type Pad, type PadWish, type WantedPad } from '@/api/client'
import { useLatest } from '@/composables/useLatest'

/** A pad being designed: for a run where one is named, and worked out anew after every change. */
export function usePad(job: Ref<string | undefined>, run: Ref<string>) {
  const wanted = shallowRef<WantedPad | null>(null)
  const wish = ref<PadWish | null>(null)
  const pad = shallowRef<Pad | null>(null)
  const judged = shallowRef<Judged | null>(null)
  const { problem, ask } = useLatest()

  /** The layout that can be built into a lead, kept where it can be. */
  function layoutFor(fitting: string, now: PadWish['layout']): PadWish['layout'] {
    const layouts = wanted.value?.fittings.find(({ id }) => id === fitting)?.layouts as PadWish['layout'][]
    return !layouts || layouts.includes(now) ? now : (layouts[0] ?? now)
  }

  watch(
    () => [job.value, run.value] as const,
    ([id, named]) =>
      id &&
      void ask(
        () => api.padFor(id, named),
        (found) => {
          wanted.value = found
          const { loss_db, source_ohm, load_ohm, fitting, length_m } = found
          const layout = layoutFor(fitting, 'u')
          wish.value = { loss_db, source_ohm, load_ohm, fitting, length_m, layout, series: 'E24' }
        },
      ),
    { immediate: true },
  )
  async function designed(asked: PadWish): Promise<[Pad, Judged | null]> {
    const found = await api.pad(asked)
    return [found, found.lead ? await api.judge(found.lead) : null]
  }
  watch(
    wish,
    (asked) =>
      asked &&
      void ask(
        () => designed(asked),
        (found) => ([pad.value, judged.value] = found),
      ),
  )

  function change(changed: Partial<PadWish>) {
    if (!wish.value) return
    const next = { ...wish.value, ...changed }
    if (changed.series) delete next.tolerance_percent // each series has a tolerance of its own
    wish.value =
      'fitting' in changed ? { ...next, layout: layoutFor(next.fitting ?? '', next.layout ?? 'u') } : next
  }

  return { wanted, wish, pad, judged, problem, change }
}
