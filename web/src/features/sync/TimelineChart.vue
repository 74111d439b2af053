<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { Sync } from '@/api/client'
import { lasting } from '@/format/time'

/** Files that hang together, each as a bar where it lies: sound as a frame, picture filled. */
const props = defineProps<{ line: Sync['timelines'][number]; clips: Sync['clips']; chosen: string }>()
const emit = defineEmits<{ choose: [id: string] }>()
const ROW = 30
const HEAD = 20
const NAMES = 190
const box = useTemplateRef<HTMLElement>('box')
const width = ref(1000)
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => entry && (width.value = Math.max(420, entry.contentRect.width)))
  if (box.value) observer.observe(box.value)
})
onBeforeUnmount(() => observer?.disconnect())

const bars = computed(() => {
  const wide = width.value - NAMES - 4
  return props.line.files.map((file, index) => ({
    ...file,
    y: HEAD + index * ROW,
    x: NAMES + (file.begins_s / props.line.seconds) * wide,
    width: Math.max((file.duration_s / props.line.seconds) * wide, 3),
    clip: props.clips.find(({ other }) => other === file.id),
  }))
})
const STEPS = [1, 2, 5, 10, 30, 60, 120, 300, 600, 1800, 3600, 7200]
const ticks = computed(() => {
  const step = STEPS.find((item) => props.line.seconds / item <= 8) ?? 14_400
  const wide = width.value - NAMES - 4
  return Array.from({ length: Math.ceil(props.line.seconds / step) }, (_, index) => ({
    at: index * step,
    x: NAMES + ((index * step) / props.line.seconds) * wide,
  }))
})
const words = (bar: (typeof bars.value)[number]) =>
  bar.clip
    ? `${bar.name} begins at ${lasting(bar.begins_s)}, by ${bar.clip.by_hand ? 'hand' : bar.clip.method}`
    : `${bar.name} begins at ${lasting(bar.begins_s)}`
</script>

<template>
  <div ref="box">
    <svg
      :width="width"
      :height="HEAD + bars.length * ROW + 4"
      role="group"
      :aria-label="`Timeline from ${line.starts}`"
    >
      <g v-for="tick in ticks" :key="tick.at" class="tick">
        <line :x1="tick.x" :x2="tick.x" :y1="HEAD - 4" :y2="HEAD + bars.length * ROW" />
        <text :x="tick.x + 3" y="12">{{ lasting(tick.at) }}</text>
      </g>
      <g
        v-for="bar in bars"
        :key="bar.id"
        :class="{ picture: bar.side === 'camera', here: bar.id === chosen, still: !bar.clip }"
        :tabindex="bar.clip ? 0 : undefined"
        :role="bar.clip ? 'button' : undefined"
        :aria-label="words(bar)"
        @click="bar.clip && emit('choose', bar.id)"
        @keydown.enter="bar.clip && emit('choose', bar.id)"
      >
        <rect v-if="bar.id === chosen" x="0" :y="bar.y + 1" :width="width" :height="ROW - 2" class="row" />
        <text x="6" :y="bar.y + 20" class="name">
          {{ bar.name.length > 22 ? `${bar.name.slice(0, 21)}…` : bar.name }}
          <title>{{ bar.name }}</title>
        </text>
        <line :x1="NAMES" :x2="width" :y1="bar.y + ROW" :y2="bar.y + ROW" class="rule" />
        <rect :x="bar.x" :y="bar.y + 5" :width="bar.width" :height="ROW - 11" class="bar" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.bar {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.picture .bar {
  fill: var(--accent);
  stroke: none;
}
.row {
  fill: var(--sheet);
  stroke: var(--pin);
}
.name {
  font-size: 14px;
  fill: var(--ink);
}
.tick line {
  stroke: var(--line);
}
.tick text {
  font-size: 12px;
  fill: var(--ink-soft);
}
.rule {
  stroke: var(--line);
}
g[role='button'] {
  cursor: pointer;
}
g[role='button']:hover .name {
  text-decoration: underline;
}
</style>
