<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { BOX, ladderShape, ladderWords, shortened, type Overlay } from './ladderShape'

/** The chain from left to right; the sound is a ribbon that must pass between ceiling and floor of every stage. */
const props = defineProps<{
  width: number
  ladder: Ladder
  other?: Overlay
  beside?: Ladder
  pointed?: number
}>()
const emit = defineEmits<{ point: [rung: number] }>()
const hatch = useId()
const UNIT_FROM_PX = 86 // narrower columns have room for the figure only; its unit stands in the account
const BOTTOM = BOX.top + BOX.height

const shape = computed(() => ladderShape(props.ladder, props.width, props.other, props.beside))
const right = computed(() => props.width - BOX.right)
</script>

<template>
  <svg
    :width="width"
    :height="BOTTOM + 64"
    :viewBox="`0 0 ${width} ${BOTTOM + 64}`"
    role="group"
    :aria-label="ladderWords(ladder)"
    class="ladder"
  >
    <defs>
      <pattern :id="hatch" width="7" height="7" patternTransform="rotate(45)" patternUnits="userSpaceOnUse">
        <rect width="2.6" height="7" class="hatching" />
      </pattern>
    </defs>
    <text :x="BOX.left - 8" y="14" class="axis end">dBu</text>
    <text :x="right + 8" y="14" class="axis">dBFS</text>
    <g v-for="tick in shape.left" :key="`u${tick.level}`">
      <line :x1="BOX.left" :x2="right" :y1="tick.at" :y2="tick.at" class="grid" />
      <text :x="BOX.left - 8" :y="tick.at + 5" class="axis end">{{ formatLevel(tick.level) }}</text>
    </g>
    <g v-for="tick in shape.right" :key="`d${tick.level}`">
      <line :x1="right" :x2="right + 5" :y1="tick.at" :y2="tick.at" class="tick" />
      <text :x="right + 8" :y="tick.at + 5" class="axis">{{ formatLevel(tick.level) }}</text>
    </g>
    <polygon :points="shape.whole" class="ribbon" />
    <polygon :points="shape.deep" class="ribbon deep" />
    <polyline :points="shape.average" class="average" />
    <polyline :points="shape.burst" class="burst" />
    <g v-for="(item, index) in shape.columns" :key="index" :data-stage="item.rung.label">
      <line :x1="item.x" :x2="item.x" :y1="BOX.top" :y2="BOTTOM" class="grid" />
      <rect
        v-if="item.rung.over_db && item.ceiling !== null && item.peak !== null"
        :x="item.x + 2"
        :width="item.wide - 4"
        :y="shape.y(item.peak)"
        :height="shape.y(item.ceiling) - shape.y(item.peak)"
        :fill="`url(#${hatch})`"
        class="over"
      />
      <line
        v-if="item.ceiling !== null"
        :x1="item.x + 3"
        :x2="item.x + item.wide - 3"
        :y1="shape.y(item.ceiling)"
        :y2="shape.y(item.ceiling)"
        class="ceiling"
      />
      <line
        v-if="item.floor !== null"
        :x1="item.x + 3"
        :x2="item.x + item.wide - 3"
        :y1="shape.y(item.floor)"
        :y2="shape.y(item.floor)"
        class="floor"
      />
      <text :x="item.x + item.wide / 2" :y="BOTTOM + 19" class="stage">
        {{ shortened(item.rung.head, item.wide - 12) }}
        <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
      </text>
      <text :x="item.x + item.wide / 2" :y="BOTTOM + 36" class="figure">
        {{ shortened(item.rung.tail, item.wide - 4) }}
        <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
      </text>
      <text :x="item.x + item.wide / 2" :y="BOTTOM + 54" class="stage">
        {{ formatLevel(item.rung.average, 1) }} {{ item.wide < UNIT_FROM_PX ? '' : item.rung.unit }}
      </text>
    </g>
    <g v-if="other" class="other">
      <polyline :points="shape.other" class="halo" />
      <polyline :points="shape.other" />
    </g>
    <rect
      v-for="(item, index) in shape.columns"
      :key="`p${index}`"
      class="place"
      :class="{ pointed: index === pointed }"
      :x="item.x + 1"
      :y="BOX.top"
      :width="item.wide - 2"
      :height="BOX.height + 62"
      tabindex="0"
      role="button"
      :aria-pressed="index === pointed"
      :aria-label="`${item.rung.label}, ${formatLevel(item.rung.average, 1)} ${item.rung.unit}: how it comes about`"
      @click="emit('point', index)"
      @focus="emit('point', index)"
      @mouseenter="emit('point', index)"
    />
    <rect
      :x="right - shape.columns.at(-1)!.wide + 2"
      :width="shape.columns.at(-1)!.wide - 4"
      :y="shape.band.top"
      :height="Math.max(0, shape.band.bottom - shape.band.top)"
      class="target"
    />
    <text
      v-for="label in shape.labels"
      :key="label.text + label.x"
      :x="label.x"
      :y="label.y"
      :class="['word', label.kind]"
    >
      {{ label.text }}
    </text>
  </svg>
</template>

<style scoped src="./ladder.css"></style>
<style scoped>
.stage {
  font-size: 13.5px;
  text-anchor: middle;
}
.figure {
  fill: var(--ink-soft);
  text-anchor: middle;
}
</style>
