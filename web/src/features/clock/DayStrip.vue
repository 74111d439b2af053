<script setup lang="ts">
import { computed } from 'vue'

import type { Clock } from '@/api/client'
import { clockTime } from '@/format/time'
import { along, dayShape, STRIP } from './clockShape'

/** How far a clock that runs alone may be off over the day: it grows from each jam to the next, against the limit. */
const props = defineProps<{ clock: Clock; day: Clock['days'][number]; width: number }>()
const shape = computed(() => dayShape(props.clock, props.day, props.width))
const words = computed(() => {
  const { day, clock } = props
  if (day.unset_until_min !== null) return `unset until ${clockTime(day.unset_until_min)}`
  if (day.beyond_min !== null) return `beyond ${clock.limit_frames} frames from ${clockTime(day.beyond_min)}`
  return `within ${clock.limit_frames} frames all day`
})
</script>

<template>
  <svg :width="width" :height="STRIP.height" role="img" :aria-label="`${day.label}: ${words}`">
    <defs>
      <pattern id="beyond" width="6" height="6" patternTransform="rotate(45)" patternUnits="userSpaceOnUse">
        <rect width="2.4" height="6" class="hatching" />
      </pattern>
    </defs>
    <rect
      v-for="item in clock.breaks"
      :key="item.id"
      :x="along(clock, item.at_min, width)"
      y="0"
      :width="Math.max(along(clock, clock.day_begins_min + item.length_min, width), 3)"
      :height="STRIP.floor"
      class="break"
    >
      <title>{{ item.label }}, {{ clockTime(item.at_min) }}</title>
    </rect>
    <rect
      v-if="shape.unset !== null"
      x="0"
      y="0"
      :width="shape.unset"
      :height="STRIP.floor"
      fill="url(#beyond)"
    />
    <line x1="0" :x2="width" :y1="STRIP.floor" :y2="STRIP.floor" class="floor" />
    <line x1="0" :x2="width" :y1="shape.limit" :y2="shape.limit" class="limit" />
    <polygon v-for="points in shape.beyond" :key="points" :points="points" fill="url(#beyond)" />
    <polyline :points="shape.saw" class="saw" />
    <g v-for="jam in shape.jams" :key="jam.at">
      <path :d="`M${jam.x} ${STRIP.floor} l-4.5 6 h9 z`" class="jam" />
      <title>jam at {{ clockTime(jam.at) }}</title>
    </g>
    <text :x="width - 2" y="11" class="words" :class="{ bad: day.beyond_min !== null }">
      {{ words }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  overflow: visible;
}
.break {
  fill: var(--line);
  opacity: 0.45;
}
.hatching {
  fill: var(--stop);
}
.floor {
  stroke: var(--line-strong);
}
.limit {
  stroke: var(--ink-soft);
  stroke-dasharray: 5 4;
}
.saw {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.jam {
  fill: var(--ink);
}
.words {
  font-size: 12.5px;
  text-anchor: end;
  fill: var(--ink-soft);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.words.bad {
  font-weight: 700;
  fill: var(--stop);
}
</style>
