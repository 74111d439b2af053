<script setup lang="ts">
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'

import { useSettings } from '@/stores/settings'

/** A curve, or a band between two, over one axis: waveforms and spectra. It only draws what it is given. */
const props = defineProps<{
  label: string
  /** x first, then one curve, or the upper and the lower edge of a band; several curves where they have names. */
  data: readonly (readonly (number | null)[])[]
  unit: string
  low: number
  high: number
  /** Marks along x, for a logarithmic axis. */
  marks?: readonly number[]
  xUnit: string
  height?: number
  names?: readonly string[]
  /** Each name has two curves, the edges of a band; the first one is filled, so that the other is seen over it. */
  bands?: boolean
}>()
const settings = useSettings()
const box = useTemplateRef<HTMLDivElement>('box')
let plot: uPlot | null = null
const observer = new ResizeObserver(() => draw())

/** Curves beside each other are told apart by how they are drawn; colour only helps. */
const LINES = [
  { colour: '--accent', dash: [] },
  { colour: '--stop', dash: [8, 4] },
  { colour: '--note', dash: [2, 3] },
  { colour: '--caution', dash: [12, 3, 2, 3] },
  { colour: '--ink', dash: [5, 2] },
  { colour: '--ink-soft', dash: [1, 5] },
] as const
const lineOf = (index: number) => LINES[index % LINES.length] ?? LINES[0]

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const short = (value: number) => (value >= 1000 ? `${value / 1000}k` : String(value))

function draw() {
  if (!box.value) return
  plot?.destroy()
  const [ink, line, fill] = [colour('--ink-soft'), colour('--line'), colour('--ribbon')]
  const axis = { stroke: ink, grid: { stroke: line, width: 1 }, ticks: { show: false }, font: '12px inherit' }
  const isBand = props.data.length > 2 && (!props.names || props.bands)
  const named = (index: number) => lineOf(props.bands ? Math.floor(index / 2) : index)
  const curve = (index: number) => ({
    stroke: colour(props.names ? named(index).colour : '--accent'),
    dash: props.names && !props.bands ? [...named(index).dash] : [],
    width: isBand ? 1 : 2,
    points: { show: false },
  })
  plot = new uPlot(
    {
      width: box.value.clientWidth,
      height: props.height ?? 150,
      legend: { show: false },
      cursor: { show: false },
      scales: {
        x: {
          time: false,
          ...(props.marks ? { distr: 3 as const, range: [20, 20_000] as [number, number] } : {}),
        },
        y: { range: [props.low, props.high] },
      },
      axes: [
        {
          ...axis,
          size: 26,
          ...(props.marks
            ? { splits: () => [...(props.marks ?? [])], filter: (_: uPlot, all: number[]) => all }
            : {}),
          values: (_: uPlot, marks: number[]) => marks.map((mark) => (mark === null ? '' : short(mark))),
        },
        {
          ...axis,
          size: 46,
          ...(isBand ? { splits: () => [props.low, 0, props.high] } : {}),
          values: (_: uPlot, marks: number[]) =>
            marks.map((mark) => String(Number(mark.toPrecision(2))).replace('-', '−')),
        },
      ],
      series: [{}, ...props.data.slice(1).map((_, index) => curve(index))],
      bands: isBand ? [{ series: [1, 2] as [number, number], fill }] : [],
    },
    props.data as uPlot.AlignedData,
    box.value,
  )
}
onMounted(() => box.value && observer.observe(box.value))
onBeforeUnmount(() => {
  observer.disconnect()
  plot?.destroy()
})
watch([() => props.data, () => settings.theme], () => draw(), { flush: 'post' })
</script>

<template>
  <figure>
    <div ref="box" role="img" :aria-label="label" />
    <figcaption class="soft small">{{ unit }} over {{ xUnit }}</figcaption>
    <ul v-if="names" class="names small">
      <li v-for="(name, index) in names" :key="name">
        <svg width="36" height="8" aria-hidden="true">
          <line
            x1="0"
            x2="36"
            y1="4"
            y2="4"
            stroke-width="2"
            :stroke="`var(${lineOf(index).colour})`"
            :stroke-dasharray="bands ? undefined : lineOf(index).dash.join(' ') || undefined"
          />
        </svg>
        {{ name }}
      </li>
    </ul>
  </figure>
</template>

<style scoped>
figure {
  min-width: 0;
  margin: 0;
}
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.2rem;
}
.names li {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
</style>
