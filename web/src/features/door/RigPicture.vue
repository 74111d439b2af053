<script setup lang="ts">
import { computed } from 'vue'

import type { RigPicture } from '@/api/client'

/** A rig as a trace: microphones on the left, what records on the right; radio is dotted. */
const props = defineProps<{ picture: RigPicture; label: string }>()
const WIDTH = 320
const ROW = 26
const TOP = 16

const columns = computed(() => Math.max(1, ...props.picture.nodes.map(({ column }) => column)))
const tallest = computed(() => 1 + Math.max(...props.picture.nodes.map(({ row }) => row)))
const height = computed(() => tallest.value * ROW + 12)
const isDot = (kind: string) => kind === 'microphone' || kind === 'transmitter'

/** Where each device stands: those of a column spread over the height. */
const placed = computed(() => {
  const counts = new Map<number, number>()
  for (const { column } of props.picture.nodes) counts.set(column, (counts.get(column) ?? 0) + 1)
  return new Map(
    props.picture.nodes.map((node) => {
      const free = ((tallest.value - (counts.get(node.column) ?? 1)) * ROW) / 2
      const x = 6 + (node.column / columns.value) * (WIDTH - 84)
      return [node.id, { ...node, x, y: TOP + free + node.row * ROW, dot: isDot(node.kind) }]
    }),
  )
})
const links = computed(() =>
  props.picture.links.flatMap((link) => {
    const [from, to] = [placed.value.get(link.sending), placed.value.get(link.receiving)]
    return from && to
      ? [
          {
            ...link,
            x1: from.x + (from.dot ? 6 : 72),
            y1: from.y,
            x2: to.x,
            y2: to.y,
            key: `${from.id} ${to.id}`,
          },
        ]
      : []
  }),
)
const short = (text: string) => (text.length > 12 ? `${text.slice(0, 11)}…` : text)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="label">
    <g v-for="link in links" :key="link.key">
      <line :x1="link.x1" :y1="link.y1" :x2="link.x2" :y2="link.y2" :class="{ radio: link.is_radio }" />
      <text v-if="link.label" class="note" :x="link.x2 - 4" :y="link.y2 - 12" text-anchor="end">
        {{ link.label }}
      </text>
    </g>
    <g v-for="node in placed.values()" :key="node.id">
      <template v-if="node.dot">
        <rect class="dot" :x="node.x - 2" :y="node.y - 4" width="8" height="8" />
        <text class="note" :x="node.x - 2" :y="node.y - 7">{{ node.label }}</text>
      </template>
      <template v-else>
        <rect :x="node.x" :y="node.y - 10" width="72" height="20" />
        <text :x="node.x + 4" :y="node.y + 4">{{ short(node.label) }}</text>
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
line {
  stroke: var(--ink);
  stroke-width: 1.5;
}
line.radio {
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
