<script setup lang="ts">
import { computed } from 'vue'

import type { RigPicture } from '@/api/client'

/** A rig as a trace: microphones on the left, what records on the right; radio is dotted. */
const props = defineProps<{ picture: RigPicture; label: string }>()
const WIDTH = 320
const TOP = 22
const EDGE = 6
const GAP = 14 // between the boxes of two columns
const WIDEST = 72
const LETTER = 6.4 // about, in px
const ROW = 26
const ROW_WITH_NOTES = 37 // what is in a cable stands above the device that it goes into

const columns = computed(() => Math.max(1, ...props.picture.nodes.map(({ column }) => column)))
const row = computed(() => (props.picture.links.some(({ label }) => label) ? ROW_WITH_NOTES : ROW))
const height = computed(
  () => (1 + Math.max(0, ...props.picture.nodes.map(({ row }) => row))) * row.value + 12,
)
const isDot = (kind: string) => kind === 'microphone' || kind === 'transmitter'

/** Where the first column of boxes begins: behind the dots, where the sources are all dots. */
const first = computed(() =>
  props.picture.nodes.some(({ column, kind }) => column === 0 && !isDot(kind)) ? 0 : 1,
)
const dots = computed(() =>
  Math.max(5, ...props.picture.nodes.filter(({ kind }) => isDot(kind)).map(({ label }) => label.length)),
)
const begin = computed(() => (first.value ? EDGE + 10 + dots.value * (LETTER - 0.5) : EDGE))
const boxes = computed(() => columns.value + 1 - first.value)
const box = computed(() =>
  Math.min(WIDEST, (WIDTH - EDGE - begin.value - GAP * (boxes.value - 1)) / Math.max(1, boxes.value)),
)
/** Columns are as far apart as the width lets them; the last one ends at the right. */
const xOf = (column: number) => {
  if (column < first.value) return EDGE
  const apart = (WIDTH - EDGE - box.value - begin.value) / Math.max(1, boxes.value - 1)
  return boxes.value > 1 ? begin.value + (column - first.value) * apart : WIDTH - EDGE - box.value
}

type DrawnNode = RigPicture['nodes'][number] & { x: number; y: number; dot: boolean }
const placed = computed<Map<string, DrawnNode>>(
  () =>
    new Map(
      props.picture.nodes.map((node) => {
        return [
          node.id,
          { ...node, x: xOf(node.column), y: TOP + node.row * row.value, dot: isDot(node.kind) },
        ]
      }),
    ),
)
/** Along its own row, and up or down just before the device that it goes into, so that it crosses nothing between. */
const bent = (from: DrawnNode, to: DrawnNode) =>
  `${from.x + (from.dot ? 6 : box.value)},${from.y} ${to.x - 12},${from.y} ${to.x},${to.y}`
const links = computed(() =>
  props.picture.links.flatMap((link) => {
    const [from, to] = [placed.value.get(link.sending), placed.value.get(link.receiving)]
    return from && to ? [{ ...link, points: bent(from, to), key: `${from.id} ${to.id}` }] : []
  }),
)
/** What is in the cables into a device, each once. */
const noteOf = (device: string) =>
  [
    ...new Set(
      props.picture.links
        .filter(({ receiving, label: note }) => receiving === device && note)
        .map(({ label: note }) => note),
    ),
  ].join(', ')
const short = (text: string) => {
  const most = Math.floor(box.value / LETTER)
  return text.length > most ? `${text.slice(0, most - 1)}…` : text
}
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="label">
    <g v-for="link in links" :key="link.key">
      <polyline :points="link.points" :class="{ radio: link.is_radio }" />
    </g>
    <g v-for="node in placed.values()" :key="node.id">
      <template v-if="node.dot">
        <rect class="dot" :x="node.x - 2" :y="node.y - 4" width="8" height="8" />
        <text class="note" :x="node.x - 2" :y="node.y - 7">{{ node.label }}</text>
      </template>
      <template v-else>
        <rect :x="node.x" :y="node.y - 10" :width="box" height="20" />
        <text :x="node.x + 4" :y="node.y + 4">{{ short(node.label) }}</text>
        <text class="note" :x="node.x + box" :y="node.y - 13" text-anchor="end">{{ noteOf(node.id) }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 22rem;
  height: auto;
}
polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
polyline.radio {
  stroke-dasharray: 2 4;
}
rect {
  fill: var(--chalk);
  stroke: var(--ink);
  stroke-width: 1.5;
}
rect.dot {
  fill: var(--ink);
}
text {
  fill: var(--ink);
  font-size: 11px;
}
text.note {
  font-size: 10px;
}
</style>
