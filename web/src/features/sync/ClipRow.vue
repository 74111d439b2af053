<script setup lang="ts">
import { computed, ref, toRef } from 'vue'

import type { Sync } from '@/api/client'
import { plainNumber } from '@/format/levels'
import PlotView from '@/ui/PlotView.vue'
import { useWaves } from './useWaves'

/** One clip: where it was found, by what, how sure; both waves beside it, one over the other. */
const props = defineProps<{
  job: string
  clip: Sync['clips'][number]
  files: Sync['files']
  isOpen: boolean
}>()
const emit = defineEmits<{ open: [] }>()
const SPAN_S = 4
const file = (id: string) => props.files.find((item) => item.id === id)
const other = computed(() => file(props.clip.other))
const reference = computed(() => file(props.clip.reference))
const hasSound = computed(() => Boolean(other.value?.rate_hz && reference.value?.rate_hz))
const at = computed(() => Math.max(props.clip.offset_s, 0) + 1)
const span = ref(SPAN_S)
const { waves } = useWaves(toRef(props, 'job'), toRef(props, 'clip'), at, span, hasSound)
const data = computed(() => {
  const found = waves.value
  if (!found) return []
  const step = found.span_s / found.reference.low.length
  return [
    found.reference.low.map((_, index) => Number((found.at_s + index * step).toFixed(4))),
    found.reference.high,
    found.reference.low,
    found.other.high,
    found.other.low,
  ]
})
const minus = (text: string) => text.replace('-', '−')
const SURE = [
  [0.8, 'sure'],
  [0.5, 'likely'],
] as const
const sure = computed(() =>
  props.clip.by_hand
    ? 'placed by hand'
    : `${SURE.find(([least]) => props.clip.confidence >= least)?.[1] ?? 'unsure'}, ${props.clip.confidence.toFixed(2)}`,
)
</script>

<template>
  <li :class="{ open: isOpen }">
    <button
      type="button"
      class="head"
      :aria-expanded="isOpen"
      :aria-label="`${other?.name} begins at ${clip.offset_s.toFixed(1)} s, by ${clip.by_hand ? 'hand' : clip.method}`"
      @click="emit('open')"
    >
      <span>
        <strong>{{ other?.name }}</strong>
        <span class="soft">in {{ reference?.name }}</span>
      </span>
      <span class="num"
        ><strong>{{ minus(clip.offset_s.toFixed(3)) }} s</strong><br />
        <span class="soft small">{{ minus(clip.offset_frames.toFixed(2)) }} frames</span></span
      >
      <span
        >by {{ clip.by_hand ? 'hand' : clip.method }}<br /><span class="soft small">{{ sure }}</span></span
      >
      <span class="num">{{
        clip.drift_ppm === null ? 'drift not known' : `${plainNumber(clip.drift_ppm)} ppm`
      }}</span>
    </button>
    <PlotView
      v-if="waves && hasSound && !isOpen"
      :label="`${reference?.name} and ${other?.name}, ${SPAN_S} s`"
      :data="data"
      :names="[reference?.name ?? '', other?.name ?? '']"
      unit="both normalised"
      x-unit="seconds of the recorder file"
      :low="-1"
      :high="1"
      :height="80"
      bands
    />
    <slot />
  </li>
</template>

<style scoped>
li {
  padding: 0.3rem 0 0.6rem;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
}
li.open {
  padding-left: 0.6rem;
  border-left-color: var(--pin);
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 2fr) 7.5rem 8rem 8rem;
  gap: 0.4rem 1rem;
  align-items: baseline;
  width: 100%;
  padding: 0.3rem 0;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
.head > span:first-child {
  display: grid;
  overflow-wrap: anywhere;
}
@media (width < 700px) {
  .head {
    grid-template-columns: minmax(0, 1fr) 7.5rem;
  }
}
</style>
