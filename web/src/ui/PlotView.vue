<script setup lang="ts">
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'

import { useSettings } from '@/stores/settings'

/** A curve, or a band between two, over one axis: waveforms and spectra. It only draws what it is given. */
const props = defineProps<{
  label: string
  /** x first, then one curve, or the upper and the lower edge of a band. */
  data: readonly (readonly (number | null)[])[]
  unit: string
  low: number
  high: number
  /** Marks along x, for a logarithmic axis. */
  marks?: readonly number[]
  xUnit: string
  height?: number
}>()
const settings = useSettings()
const box = useTemplateRef<HTMLDivElement>('box')
let plot: uPlot | null = null
const observer = new ResizeObserver(() => draw())

const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
const short = (value: number) => (value >= 1000 ? `${value / 1000}k` : String(value))

function draw() {
  if (!box.value) return
  plot?.destroy()
  const [ink, line, fill] = [colour('--ink-soft'), colour('--line'), colour('--ribbon')]
  const axis = { stroke: ink, grid: { stroke: line, width: 1 }, ticks: { show: false }, font: '12px inherit' }
  const isBand = props.data.length > 2
  const curve = { stroke: colour('--accent'), width: isBand ? 1 : 2, points: { show: false } }
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
      series: [{}, ...props.data.slice(1).map(() => curve)],
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
  </figure>
</template>

<style scoped>
figure {
  min-width: 0;
  margin: 0;
}
</style>
