<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { Ladder, Rung } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { onScale, rangeOf, ticks } from './scale'

/** The chain from left to right; the sound is a ribbon that must pass between ceiling and floor of every stage. */
const props = defineProps<{ ladder: Ladder }>()
const LEFT = 46
const RIGHT = 54
const TOP = 26
const HEIGHT = 270

const box = useTemplateRef<HTMLElement>('box')
const width = ref(1100)
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => entry && (width.value = Math.max(560, entry.contentRect.width)))
  if (box.value) observer.observe(box.value)
})
onBeforeUnmount(() => observer?.disconnect())

const range = computed(() => rangeOf(props.ladder))
const y = (level: number) =>
  TOP +
  ((range.value.high - Math.min(Math.max(level, range.value.low), range.value.high)) /
    (range.value.high - range.value.low)) *
    HEIGHT
const column = computed(() => (width.value - LEFT - RIGHT) / props.ladder.rungs.length)

interface Column {
  rung: Rung
  x: number
  wide: number
  quiet: number | null
  average: number | null
  peak: number | null
  ceiling: number | null
  floor: number | null
}

const columns = computed<Column[]>(() =>
  props.ladder.rungs.map((rung, index) => ({
    rung,
    x: LEFT + index * column.value,
    wide: column.value,
    quiet: onScale(rung, rung.quiet),
    average: onScale(rung, rung.average),
    peak: onScale(rung, rung.peak),
    ceiling: onScale(rung, rung.ceiling),
    floor: onScale(rung, rung.noise),
  })),
)

/** Upper and lower edges joined into one ribbon, flat across a stage and sloping between stages. */
function ribbon(upper: keyof Column, lower: keyof Column): string {
  const live = columns.value.filter((item) => item[upper] !== null && item[lower] !== null)
  const slope = Math.min(9, column.value / 6)
  const along = (key: keyof Column, item: Column) => [
    `${item.x + slope},${y(item[key] as number)}`,
    `${item.x + item.wide - slope},${y(item[key] as number)}`,
  ]
  const there = live.flatMap((item) => along(upper, item))
  const back = [...live].reverse().flatMap((item) => along(lower, item).reverse())
  return [...there, ...back].join(' ')
}

const averageLine = computed(() =>
  ribbon('average', 'average')
    .split(' ')
    .slice(0, columns.value.filter((item) => item.average !== null).length * 2)
    .join(' '),
)

/** The right-hand scale: dBFS of the track, where its full scale stands. */
const fullScale = computed(() => props.ladder.rungs.at(-1)?.dbu_offset ?? 0)
const digital = computed(() =>
  ticks(range.value.low - fullScale.value, 0, 20).filter(
    (level) => level + fullScale.value <= range.value.high,
  ),
)
const floorChanges = computed(() =>
  columns.value.filter(
    (item, index) =>
      item.floor !== null &&
      item.rung.ruled_by &&
      item.rung.ruled_by !== columns.value[index - 1]?.rung.ruled_by,
  ),
)
const band = computed(() => ({
  top: y(props.ladder.target.high_dbfs + fullScale.value),
  bottom: y(props.ladder.target.low_dbfs + fullScale.value),
}))
/** What fits under a column; the whole of it shows on pointing. */
function shortened(text: string, wide: number): string {
  const most = Math.floor(wide / 6.9)
  return text.length > most ? `${text.slice(0, most - 1).trimEnd()}…` : text
}
const words = computed(
  () =>
    `Ladder of ${props.ladder.title}: ` +
    props.ladder.rungs
      .map(
        (rung) =>
          `${rung.label} ${formatLevel(rung.average)} ${rung.unit}${rung.over_db ? `, over by ${formatLevel(rung.over_db, 1)} dB` : ''}`,
      )
      .join('; '),
)
</script>

<template>
  <div ref="box" class="box">
    <svg :width="width" :height="TOP + HEIGHT + 64" role="img" :aria-label="words" class="ladder">
      <defs>
        <pattern id="hatch" width="7" height="7" patternTransform="rotate(45)" patternUnits="userSpaceOnUse">
          <rect width="2.6" height="7" class="hatching" />
        </pattern>
      </defs>
      <text :x="LEFT - 8" y="14" class="axis end">dBu</text>
      <text :x="width - RIGHT + 8" y="14" class="axis">dBFS</text>
      <g v-for="level in ticks(range.low, range.high, 20)" :key="`u${level}`">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(level)" :y2="y(level)" class="grid" />
        <text :x="LEFT - 8" :y="y(level) + 5" class="axis end">{{ formatLevel(level) }}</text>
      </g>
      <g v-for="level in digital" :key="`d${level}`">
        <line
          :x1="width - RIGHT"
          :x2="width - RIGHT + 5"
          :y1="y(level + fullScale)"
          :y2="y(level + fullScale)"
          class="tick"
        />
        <text :x="width - RIGHT + 8" :y="y(level + fullScale) + 5" class="axis">
          {{ formatLevel(level) }}
        </text>
      </g>
      <polygon :points="ribbon('peak', 'quiet')" class="ribbon" />
      <polygon :points="ribbon('average', 'quiet')" class="ribbon deep" />
      <polyline :points="averageLine" class="average" />
      <g v-for="(item, index) in columns" :key="index" :data-stage="item.rung.label">
        <line :x1="item.x" :x2="item.x" :y1="TOP" :y2="TOP + HEIGHT" class="grid" />
        <template v-if="item.rung.over_db && item.ceiling !== null && item.peak !== null">
          <rect
            :x="item.x + 2"
            :width="item.wide - 4"
            :y="y(item.peak)"
            :height="y(item.ceiling) - y(item.peak)"
            fill="url(#hatch)"
            class="over"
          />
          <text :x="item.x + item.wide / 2" :y="y(item.peak) - 7" class="over-words">
            clips by {{ formatLevel(item.rung.over_db, 1) }} dB
          </text>
        </template>
        <line
          v-if="item.ceiling !== null"
          :x1="item.x + 3"
          :x2="item.x + item.wide - 3"
          :y1="y(item.ceiling)"
          :y2="y(item.ceiling)"
          class="ceiling"
        />
        <line
          v-if="item.floor !== null"
          :x1="item.x + 3"
          :x2="item.x + item.wide - 3"
          :y1="y(item.floor)"
          :y2="y(item.floor)"
          class="floor"
        />
        <text :x="item.x + item.wide / 2" :y="TOP + HEIGHT + 19" class="stage">
          {{ shortened(item.rung.head, item.wide) }}
          <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
        </text>
        <text :x="item.x + item.wide / 2" :y="TOP + HEIGHT + 36" class="figure">
          {{ shortened(item.rung.tail, item.wide) }}
          <title>{{ item.rung.label }}: {{ item.rung.detail }}</title>
        </text>
        <text :x="item.x + item.wide / 2" :y="TOP + HEIGHT + 54" class="stage">
          {{ formatLevel(item.rung.average, 1) }} {{ item.rung.unit }}
        </text>
      </g>
      <rect
        :x="width - RIGHT - column + 2"
        :width="column - 4"
        :y="band.top"
        :height="Math.max(0, band.bottom - band.top)"
        class="target"
      />
      <text :x="width - RIGHT - 6" :y="band.bottom + 14" class="axis end">{{ ladder.target.label }}</text>
      <text
        v-for="(item, index) in floorChanges"
        :key="`f${index}`"
        :x="item.x + 5"
        :y="y(item.floor!) + 16"
        class="floor-words"
      >
        {{ item.rung.ruled_by }}
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
.target {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.5;
  stroke-dasharray: 6 3;
}
</style>
