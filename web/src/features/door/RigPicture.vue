<script setup lang="ts">
import { computed } from 'vue'

import type { RigPicture } from '@/api/client'

/** A rig as a trace: microphones on the left, what records on the right; radio is dotted. */
const props = defineProps<{ picture: RigPicture; label: string }>()
const WIDTH = 320
const ROW = 26
const TOP = 16

const columns = computed(() => Math.max(1, ...props.picture.nodes.map(({ column }) => column)))
const height = computed(() => (1 + Math.max(0, ...props.picture.nodes.map(({ row }) => row))) * ROW + 12)
const isDot = (kind: string) => kind === 'microphone' || kind === 'transmitter'

type Placed = RigPicture['nodes'][number] & { x: number; y: number; dot: boolean }
const placed = computed<Map<string, Placed>>(
  () =>
    new Map(
      props.picture.nodes.map((node) => {
        const x = 6 + (node.column / columns.value) * (WIDTH - 84)
        return [node.id, { ...node, x, y: TOP + node.row * ROW, dot: isDot(node.kind) }]
      }),
    ),
)
/** Along its own row, and up or down just before the device that it goes into, so that it crosses nothing between. */
const bent = (from: Placed, to: Placed) =>
  `${from.x + (from.dot ? 6 : 72)},${from.y} ${to.x - 12},${from.y} ${to.x},${to.y}`
const links = computed(() =>
  props.picture.links.flatMap((link) => {
    const [from, to] = [placed.value.get(link.sending), placed.value.get(link.receiving)]
    return from && to ? [{ ...link, points: bent(from, to), end: to, key: `${from.id} ${to.id}` }] : []
  }),
)
const short = (text: string) => (text.length > 12 ? `${text.slice(0, 11)}…` : text)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="label">
    <g v-for="link in links" :key="link.key">
      <polyline :points="link.points" :class="{ radio: link.is_radio }" />
      <text v-if="link.label" class="note" :x="link.end.x - 4" :y="link.end.y - 12" text-anchor="end">
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
