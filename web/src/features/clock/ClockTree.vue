<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { Clock } from '@/api/client'
import { plainNumber } from '@/format/levels'
import { clockTime, span } from '@/format/time'
import SeverityMark from '@/ui/SeverityMark.vue'
import DayStrip from './DayStrip.vue'
import { along, treeRows, type TimecodeDevice } from './clockShape'

/** Who gives time to whom, and beside it how far each clock that runs alone may be off over the day. */
const props = defineProps<{ clock: Clock; chosen: string }>()
const emit = defineEmits<{ choose: [device: string] }>()
const INDENT = 22

const rows = computed(() => treeRows(props.clock))
/** Where nobody gives time at all, that is a way to work, and no fault of one device. */
const some = computed(() => props.clock.timecode_devices.some(({ gets }) => gets !== 'none'))
const hours = computed(() => {
  const { day_begins_min: first, day_ends_min: last } = props.clock
  const step = last - first > 720 ? 180 : last - first > 360 ? 120 : 60
  const begin = Math.ceil(first / step) * step
  return Array.from({ length: Math.floor((last - begin) / step) + 1 }, (_, index) => begin + index * step)
})

const box = useTemplateRef<HTMLElement>('box')
const width = ref(460)
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => entry && (width.value = Math.max(200, entry.contentRect.width)))
  if (box.value) observer.observe(box.value)
})
onBeforeUnmount(() => observer?.disconnect())

const every = (timecodeDevice: TimecodeDevice) =>
  timecodeDevice.rejam_every_h === null
    ? 'no drift'
    : `${span(timecodeDevice.rejam_every_h * 60)} within the limit`
</script>

<template>
  <section class="tree" aria-label="Timecode sources">
    <div class="row head soft small">
      <span>timecode sources</span>
      <span ref="box" class="strip">
        <svg :width="width" height="18" aria-hidden="true">
          <text v-for="hour in hours" :key="hour" :x="along(clock, hour, width)" y="13" class="hour">
            {{ clockTime(hour) }}
          </text>
        </svg>
      </span>
    </div>
    <div
      v-for="row in rows"
      :key="row.timecodeDevice.device"
      class="row"
      :class="{ here: row.timecodeDevice.device === chosen }"
    >
      <button
        type="button"
        class="who"
        :style="{ paddingLeft: `${0.5 * 16 + row.depth * INDENT}px` }"
        :aria-expanded="row.timecodeDevice.device === chosen"
        @click="emit('choose', row.timecodeDevice.device)"
      >
        <svg v-if="row.depth" class="elbow" width="20" height="30" aria-hidden="true">
          <path
            d="M4 0 V16 H18"
            :class="{ jams: row.timecodeDevice.gets === 'jam', sound: row.timecodeDevice.gets === 'track' }"
          />
        </svg>
        <span>
          <strong>{{ row.timecodeDevice.label }}</strong>
          <span class="soft small how">
            <template v-if="row.timecodeDevice.gets === 'master'">timecode master</template>
            <template v-else-if="row.timecodeDevice.gets === 'cable'">stays connected</template>
            <template v-else-if="row.timecodeDevice.gets === 'jam'"
              >jammed by {{ row.timecodeDevice.over === 'lead' ? 'cable' : 'radio' }}</template
            >
            <template v-else-if="row.timecodeDevice.gets === 'track'"
              >as sound on {{ row.timecodeDevice.track }}</template
            >
            <template v-else
              ><SeverityMark v-if="some && row.timecodeDevice.has_socket" severity="caution" :size="11" />
              free-running, no source</template
            >
            <template v-if="row.timecodeDevice.ppm !== null"
              >, ±{{ plainNumber(row.timecodeDevice.ppm) }} ppm</template
            >
            <template v-if="row.timecodeDevice.records_run">, <b class="is-stop">record run</b></template>
            <template v-if="row.timecodeDevice.rate !== clock.rate"
              >, <b class="is-stop">at {{ row.timecodeDevice.rate }}</b></template
            >
            <template v-if="row.timecodeDevice.genlocked_to"
              >, genlock from {{ row.timecodeDevice.genlocked_to }}</template
            >
          </span>
        </span>
      </button>
      <div class="strip small">
        <DayStrip v-if="row.day" :clock="clock" :day="row.day" :width="width" />
        <p v-else-if="row.timecodeDevice.gets === 'cable'" class="soft">
          free-running drift today: up to {{ row.timecodeDevice.parts_ms!.toFixed(0) }} ms,
          {{ every(row.timecodeDevice) }}
        </p>
        <p v-else-if="row.timecodeDevice.gets === 'track'" class="soft">
          {{ plainNumber(row.timecodeDevice.loss_db) }} dB cable<template
            v-if="row.timecodeDevice.beside.length"
            >; {{ row.timecodeDevice.beside.join(', ') }} next to it is scratch at best</template
          >
        </p>
        <p
          v-else-if="row.timecodeDevice.gets === 'none' && some && row.timecodeDevice.has_socket"
          class="soft"
        >
          it has a timecode input
        </p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(14rem, 19rem) minmax(0, 1fr);
  gap: 0.8rem;
  align-items: center;
  min-height: 3.1rem;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
}
.row.head {
  min-height: 1.6rem;
  border-top: 0;
  border-bottom: 2px solid var(--line-strong);
}
.row.head + .row {
  border-top: 0;
}
.row.here {
  background: var(--sheet);
  border-left-color: var(--pin);
}
.who {
  display: flex;
  gap: 0.3rem;
  align-items: center;
  min-height: 3rem;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
.who:hover strong {
  text-decoration: underline;
}
.who strong,
.how {
  display: block;
}
.elbow {
  flex: none;
  margin-top: -0.9rem;
}
.elbow path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.elbow .jams {
  stroke-dasharray: 4 3;
}
.elbow .sound {
  stroke-dasharray: 1 3;
}
.hour {
  font-size: 12px;
  fill: var(--ink-soft);
}
@media (width < 700px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
