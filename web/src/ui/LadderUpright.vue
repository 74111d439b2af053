<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { widthOf } from './ladderLabels'
import { ladderRows, ladderWords, ROWS, shortened, type Overlay } from './ladderShape'

/** The chain from top to bottom, for a narrow screen: each stage a row, its sound a bar between floor and ceiling. */
const props = defineProps<{
  width: number
  ladder: Ladder
  other?: Overlay
  beside?: Ladder
  pointed?: number
}>()
const emit = defineEmits<{ point: [rung: number] }>()
const hatch = useId()
const BAR = 27 // from the top of a row to its bar
const SEEN_DB = 0.1 // less is printed as nothing

const shape = computed(() => ladderRows(props.ladder, props.width, props.other, props.beside))
const level = (rung: Ladder['rungs'][number]) => `${formatLevel(rung.average, 1)} ${rung.unit}`
/** What a row says beside its name: where it clips, else the rest of the name. */
const remark = (rung: Ladder['rungs'][number]) => {
  if (rung.over_db) return { text: `clips by ${formatLevel(rung.over_db, 1)} dB`, kind: 'clips' }
  const isOver = (rung.burst_over_db ?? 0) >= SEEN_DB
  if (isOver) return { text: `a burst: ${formatLevel(rung.burst_over_db, 1)} dB over`, kind: 'burst-clips' }
  const room = props.width - widthOf(rung.head) - widthOf(level(rung)) - 40
  return { text: room > 30 ? shortened(rung.tail, room) : '', kind: 'soft' }
}
</script>

<template>
  <svg
    :width="width"
    :height="shape.height"
    :viewBox="`0 0 ${width} ${shape.height}`"
    role="group"
    :aria-label="ladderWords(ladder)"
    class="ladder"
  >
    <defs>
      <pattern :id="hatch" width="7" height="7" patternTransform="rotate(45)" patternUnits="userSpaceOnUse">
        <rect width="2.6" height="7" class="hatching" />
      </pattern>
    </defs>
    <g v-for="tick in shape.above" :key="tick.level">
      <line :x1="tick.at" :x2="tick.at" :y1="ROWS.top - 6" :y2="shape.height - 20" class="grid" />
      <text :x="Math.min(Math.max(tick.at, 14), width - 40)" y="13" class="axis">
        {{ formatLevel(tick.level) }}
      </text>
    </g>
    <text :x="width - ROWS.right" y="13" class="axis end">dBu</text>
    <g v-for="(item, index) in shape.rows" :key="index" :data-stage="item.rung.label">
      <text :x="ROWS.left" :y="item.top + 17" class="stage">
        {{ item.rung.head }}
        <tspan dx="6" :class="['word', remark(item.rung).kind]">{{ remark(item.rung).text }}</tspan>
      </text>
      <text :x="width - ROWS.right" :y="item.top + 17" class="stage end">{{ level(item.rung) }}</text>
      <template v-if="item.average !== null && item.quiet !== null && item.peak !== null">
        <rect
          :x="item.quiet"
          :y="item.top + BAR"
          :width="item.peak - item.quiet"
          :height="ROWS.bar"
          class="ribbon"
        />
        <rect
          :x="item.quiet"
          :y="item.top + BAR"
          :width="item.average - item.quiet"
          :height="ROWS.bar"
          class="ribbon deep"
        />
        <rect
          v-if="item.rung.over_db && item.ceiling !== null"
          :x="item.ceiling"
          :y="item.top + BAR"
          :width="Math.max(0, item.peak - item.ceiling)"
          :height="ROWS.bar"
          :fill="`url(#${hatch})`"
          class="over"
        />
        <line
          :x1="item.average"
          :x2="item.average"
          :y1="item.top + BAR"
          :y2="item.top + BAR + ROWS.bar"
          class="average"
        />
        <line
          v-if="item.burst !== null"
          :x1="item.peak"
          :x2="item.burst"
          :y1="item.top + BAR + ROWS.bar / 2"
          :y2="item.top + BAR + ROWS.bar / 2"
          class="burst"
        />
      </template>
      <rect
        v-if="index === shape.rows.length - 1"
        :x="shape.band.left"
        :y="item.top + BAR - 4"
        :width="Math.max(0, shape.band.right - shape.band.left)"
        :height="ROWS.bar + 8"
        class="target"
      />
      <line
        v-for="(at, kind) in { floor: item.floor, ceiling: item.ceiling, other: item.other }"
        v-show="at !== null"
        :key="kind"
        :class="kind"
        :x1="at ?? 0"
        :x2="at ?? 0"
        :y1="item.top + BAR - 4"
        :y2="item.top + BAR + ROWS.bar + 4"
      />
      <rect
        class="place"
        :class="{ pointed: index === pointed }"
        x="1"
        :y="item.top"
        :width="width - 2"
        :height="ROWS.row - 4"
        tabindex="0"
        role="button"
        :aria-pressed="index === pointed"
        :aria-label="`${item.rung.label}, ${level(item.rung)}: how it comes about`"
        @click="emit('point', index)"
        @focus="emit('point', index)"
      />
    </g>
    <text v-for="tick in shape.below" :key="`d${tick.level}`" :x="tick.at" :y="shape.height - 4" class="axis">
      {{ formatLevel(tick.level) }}
    </text>
    <text :x="width - ROWS.right" :y="shape.height - 4" class="axis end">dBFS</text>
  </svg>
</template>

<style scoped src="./ladder.css"></style>
<style scoped>
.axis {
  text-anchor: middle;
}
.stage {
  font-size: 14px;
}
.end {
  text-anchor: end;
}
.soft {
  font-weight: 400;
  fill: var(--ink-soft);
}
</style>
