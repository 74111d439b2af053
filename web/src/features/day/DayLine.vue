<script setup lang="ts">
import { computed } from 'vue'

import type { Day } from '@/api/client'
import { DAY_LINE, dayRows, hours, placeOf } from './dayShape'

/** The line of the day: takes and breaks, and below them how long each battery, card and clock lasts. */
const props = defineProps<{ day: Day; width: number; now: number | null; names: number }>()
const across = computed(() => Math.max(props.width - props.names - 6, 120))
const at = computed(() => placeOf(props.day, across.value))
const rows = computed(() => dayRows(props.day))
const height = computed(() => DAY_LINE.top + DAY_LINE.takes + rows.value.length * DAY_LINE.row + 4)
const yOf = (row: number) => DAY_LINE.top + DAY_LINE.takes + row * DAY_LINE.row
const ends = (minutes: number | null) => minutes ?? props.day.ends_min
const label = computed(
  () =>
    `The day: ${props.day.set_ups.length} set-ups, ${props.day.takes.length} takes still to come. ${props.day.summary}`,
)
</script>

<template>
  <svg :width="width" :height="height" role="img" :aria-label="label">
    <g :transform="`translate(${names} 0)`">
      <template v-for="item in [...day.breaks, ...day.moves]" :key="item.id">
        <rect
          v-if="item.at_min + item.length_min > day.begins_min"
          :x="at(item.at_min)"
          :y="DAY_LINE.top - 4"
          :width="Math.max(at(item.at_min + item.length_min) - at(item.at_min), 2)"
          :height="height - DAY_LINE.top"
          class="break"
        >
          <title>{{ item.label }}</title>
        </rect>
      </template>
      <text v-for="hour in hours(day, across)" :key="hour" :x="at(hour)" y="11" class="hour">
        {{ Math.floor(hour / 60) % 24 }}
      </text>
      <rect
        v-for="take in day.takes"
        :key="`${take.set_up} ${take.number}`"
        :x="at(take.begins_min)"
        :y="DAY_LINE.top"
        :width="Math.max(at(take.ends_min) - at(take.begins_min), 1.5)"
        height="14"
        class="take"
      >
        <title>{{ take.label }}, take {{ take.number }}</title>
      </rect>
      <g v-for="(row, number) in rows" :key="row.label" :transform="`translate(0 ${yOf(number)})`">
        <template v-for="item in row.holdings" :key="item.begins_min">
          <rect
            :x="at(item.begins_min)"
            y="4"
            :width="
              Math.max(at(Math.min(ends(item.least_min), item.ends_min)) - at(item.begins_min) - 1.5, 1)
            "
            :height="DAY_LINE.bar"
            class="sure"
          />
          <rect
            v-if="ends(item.least_min) < item.ends_min"
            :x="at(ends(item.least_min))"
            y="4"
            :width="Math.max(at(item.ends_min) - at(ends(item.least_min)), 1)"
            :height="DAY_LINE.bar"
            class="over"
          />
          <line
            v-if="item.begins_min > day.begins_min"
            :x1="at(item.begins_min) - 1"
            :x2="at(item.begins_min) - 1"
            y1="0"
            :y2="DAY_LINE.bar + 8"
            class="swap"
          />
        </template>
      </g>
      <line v-if="now !== null" :x1="at(now)" :x2="at(now)" :y1="DAY_LINE.top - 8" :y2="height" class="now" />
    </g>
    <text v-for="(row, number) in rows" :key="row.label" x="0" :y="yOf(number) + 13" class="name">
      {{ row.label }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}
text {
  font-size: 12.5px;
  fill: var(--ink);
}
.hour {
  fill: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
.break {
  fill: var(--line);
  opacity: 0.45;
}
.take {
  fill: var(--accent);
}
.sure {
  fill: var(--ribbon);
}
.over {
  fill: var(--stop);
}
.swap {
  stroke: var(--ink);
  stroke-width: 2;
}
.now {
  stroke: var(--pin);
  stroke-width: 3;
}
</style>
