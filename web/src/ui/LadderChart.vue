<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { BOX, ladderShape, ladderWords, shortened, type Overlay } from './ladderShape'

/** The chain from left to right; the sound is a ribbon that must pass between ceiling and floor of every stage. */
const props = defineProps<{ ladder: Ladder; others?: readonly Overlay[]; pointed?: number }>()
const emit = defineEmits<{ point: [rung: number] }>()
const SEEN_DB = 0.1 // less is printed as nothing
const UNIT_FROM_PX = 86 // narrower columns have room for the figure only; its unit stands in the account
const BOTTOM = BOX.top + BOX.height

const box = useTemplateRef<HTMLElement>('box')
const width = ref(1100)
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => entry && (width.value = Math.max(560, entry.contentRect.width)))
  if (box.value) observer.observe(box.value)
})
onBeforeUnmount(() => observer?.disconnect())

const shape = computed(() => ladderShape(props.ladder, width.value, props.others))
const right = computed(() => width.value - BOX.right)
</script>

<template>
  <div ref="box" class="box">
    <svg
      :width="width"
      :height="BOTTOM + 64"
      :viewBox="`0 0 ${width} ${BOTTOM + 64}`"
      role="group"
      :aria-label="ladderWords(ladder)"
      class="ladder"
    >
      <defs>
        <pattern id="hatch" width="7" height="7" patternTransform="rotate(45)" patternUnits="userSpaceOnUse">
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
      <text v-if="shape.burstWords" :x="shape.burstWords.x" :y="shape.burstWords.y" class="axis">burst</text>
      <g v-for="(item, index) in shape.columns" :key="index" :data-stage="item.rung.label">
        <line :x1="item.x" :x2="item.x" :y1="BOX.top" :y2="BOTTOM" class="grid" />
        <template v-if="item.rung.over_db && item.ceiling !== null && item.peak !== null">
          <rect
            :x="item.x + 2"
            :width="item.wide - 4"
            :y="shape.y(item.peak)"
            :height="shape.y(item.ceiling) - shape.y(item.peak)"
            fill="url(#hatch)"
            class="over"
          />
          <text :x="item.x + item.wide / 2" :y="shape.y(item.peak) - 7" class="over-words">
            clips by {{ formatLevel(item.rung.over_db, 1) }} dB
          </text>
        </template>
        <text
          v-else-if="(item.rung.burst_over_db ?? 0) >= SEEN_DB && item.burst !== null"
          :x="item.x + item.wide / 2"
          :y="shape.y(item.burst) - 7"
          class="burst-words"
        >
          a burst: {{ formatLevel(item.rung.burst_over_db, 1) }} dB over
        </text>
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
          {{ shortened(item.rung.head, item.wide) }}
          <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
        </text>
        <text :x="item.x + item.wide / 2" :y="BOTTOM + 36" class="figure">
          {{ shortened(item.rung.tail, item.wide) }}
          <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
        </text>
        <text :x="item.x + item.wide / 2" :y="BOTTOM + 54" class="stage">
          {{ formatLevel(item.rung.average, 1) }} {{ item.wide < UNIT_FROM_PX ? '' : item.rung.unit }}
        </text>
      </g>
      <g
        v-for="other in shape.overlays"
        :key="other.mark"
        class="other"
        :class="{ second: other.mark === '△' }"
      >
        <polyline :points="other.average" />
        <polyline :points="other.peak" class="thin" />
        <text v-for="(mark, index) in other.marks" :key="index" :x="mark.x" :y="mark.y + 5">
          {{ other.mark }}
        </text>
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
      <text :x="right - 6" :y="shape.targetWords" class="axis end">{{ ladder.target.label }}</text>
      <text
        v-for="(word, index) in shape.floorChanges"
        :key="`f${index}`"
        :x="word.x"
        :y="word.y"
        class="floor-words"
      >
        {{ word.text }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
.box {
  overflow-x: auto;
}
.ladder {
  display: block;
  font-size: 13px;
}
text {
  fill: var(--ink);
}
.axis {
  fill: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
.end {
  text-anchor: end;
}
.grid {
  stroke: var(--line);
}
.tick {
  stroke: var(--line-strong);
}
.ribbon {
  fill: var(--ribbon-soft);
  opacity: 0.85;
}
.ribbon.deep {
  fill: var(--ribbon);
}
.average {
  fill: none;
  stroke: var(--accent);
  stroke-width: 3;
}
.burst {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.2;
  stroke-dasharray: 7 4;
}
.burst-words {
  fill: var(--caution);
  font-weight: 700;
  text-anchor: middle;
}
.ceiling {
  stroke: var(--line-strong);
  stroke-width: 4;
}
.floor {
  stroke: var(--note);
  stroke-width: 2.5;
  stroke-dasharray: 2 4;
}
.floor-words {
  fill: var(--note);
}
.over {
  stroke: var(--stop);
  stroke-width: 1.5;
}
.hatching {
  fill: var(--stop);
}
.over-words,
.burst-words {
  stroke: var(--paper);
  stroke-width: 5px;
  paint-order: stroke;
}
.over-words {
  fill: var(--stop);
  font-size: 15px;
  font-weight: 700;
  text-anchor: middle;
}
.stage {
  font-size: 13.5px;
  font-weight: 700;
  text-anchor: middle;
}
.figure {
  fill: var(--ink-soft);
  text-anchor: middle;
}
.other {
  --dashes: 1 6;

  fill: none;
}
.other.second {
  --dashes: 10 4 2 4;
}
.other polyline {
  stroke: var(--ink);
  stroke-width: 2.5;
  stroke-dasharray: var(--dashes);
  stroke-linecap: round;
}
.other .thin {
  stroke-width: 1.2;
}
.other text {
  font-size: 15px;
  text-anchor: middle;
  stroke: var(--paper);
  stroke-width: 3px;
  paint-order: stroke;
}
.place {
  fill: transparent;
  cursor: pointer;
}
.place.pointed,
.place:focus-visible {
  outline: none;
  stroke: var(--accent);
  stroke-width: 1.5;
}
.target {
  pointer-events: none;
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.5;
  stroke-dasharray: 6 3;
}
@media print {
  .ladder {
    width: 100%; /* as wide as the paper, however wide the window was */
    height: auto;
  }
}
</style>
