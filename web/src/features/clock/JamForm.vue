<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { Clock, Edit } from '@/api/client'
import { clockTime, span, timesOf } from '@/format/time'
import { useJob } from '@/stores/job'
import type { TimecodeDevice } from './clockShape'

/** From whom a device is jammed, over what, and when; and how fast both were measured to part. */
const props = defineProps<{ clock: Clock; timecodeDevice: TimecodeDevice }>()
const job = useJob()
const giver = ref('')
const over = ref<'lead' | 'radio'>('lead')
const times = ref('')
const wrong = ref('')

const givers = computed(() =>
  props.clock.timecode_devices.filter(({ device }) => device !== props.timecodeDevice.device),
)
const day = computed(() => props.clock.days.find(({ device }) => device === props.timecodeDevice.device))
const written = (minutes: readonly number[]) => minutes.map(clockTime).join(', ')
watch(
  () => props.timecodeDevice,
  (timecodeDevice) => {
    giver.value = timecodeDevice.giver_id
    over.value = timecodeDevice.over ?? 'lead'
    times.value = written(
      timecodeDevice.jams_min.length ? timecodeDevice.jams_min : [props.clock.day_begins_min],
    )
    wrong.value = ''
  },
  { immediate: true },
)

function jam(at: number[] | null) {
  wrong.value = at ? '' : 'Write times of day with commas between them: 8:00, 12:30.'
  if (!at) return
  void job.edit([
    {
      kind: 'set-jam',
      device: props.timecodeDevice.device,
      giver: giver.value || null,
      over: over.value,
      at_min: at,
    },
  ])
}

/** What both showed, or the sync of two files told: signed, this one against its giver. */
function measured(event: Event) {
  const text = (event.target as HTMLInputElement).value.replace('−', '-').replace(',', '.')
  const [first, second] = [props.timecodeDevice.giver_id, props.timecodeDevice.device]
  if (!text.trim()) return void job.edit([{ kind: 'drop-pair-drift', first, second }])
  const ppm = Number(text)
  wrong.value = Number.isFinite(ppm) ? '' : 'Write millionths as a number: 3.2, or −3.2 where it runs slow.'
  if (!wrong.value)
    void job.edit([
      {
        kind: 'take-pair-drift',
        drift: { first, second, ppm, when: new Date().toISOString().slice(0, 16) },
      } as Edit,
    ])
}
const known = computed(() =>
  job.state?.plan.pair_drifts?.find(
    ({ first, second }) =>
      [first, second].sort().join() ===
      [props.timecodeDevice.device, props.timecodeDevice.giver_id].sort().join(),
  ),
)
</script>

<template>
  <form class="jam" :aria-label="`Jams of ${timecodeDevice.label}`" @submit.prevent="jam(timesOf(times))">
    <p v-if="timecodeDevice.gets === 'cable'" class="soft">
      It stays on the cable from {{ timecodeDevice.giver }}: remove that cable, and it can be jammed and run
      alone.
    </p>
    <template v-else>
      <label class="field"
        ><span>jammed from</span>
        <select v-model="giver" :disabled="job.readOnly">
          <option value="">no source</option>
          <option v-for="item in givers" :key="item.device" :value="item.device">{{ item.label }}</option>
        </select></label
      >
      <label class="field"
        ><span>by</span>
        <select v-model="over" :disabled="job.readOnly">
          <option value="lead">a cable</option>
          <option value="radio">a radio box</option>
        </select></label
      >
      <label class="field times"
        ><span>at</span> <input v-model="times" :disabled="job.readOnly" spellcheck="false"
      /></label>
      <Button type="submit" size="small" :disabled="job.readOnly">Set</Button>
      <Button
        v-if="day?.advised_min && written(day.advised_min) !== written(timecodeDevice.jams_min)"
        outlined
        size="small"
        :disabled="job.readOnly"
        @click="jam(day.advised_min)"
        >Jam at {{ written(day.advised_min) }}</Button
      >
    </template>
    <label v-if="timecodeDevice.giver_id && timecodeDevice.gets !== 'track'" class="field"
      ><span>measured, ppm</span>
      <input
        class="num"
        :value="known?.ppm ?? ''"
        :placeholder="
          timecodeDevice.relative_drift_ppm === null ? '' : `±${timecodeDevice.relative_drift_ppm}`
        "
        :disabled="job.readOnly"
        @change="measured"
    /></label>
    <p v-if="wrong" class="is-stop wide" role="alert">{{ wrong }}</p>
    <p v-if="day" class="soft small wide">
      {{
        day.every_min === null
          ? 'It stays within the limit all day.'
          : `It stays within the limit for ${span(day.every_min)}.`
      }}
      {{
        timecodeDevice.is_measured
          ? 'As it was measured.'
          : 'As bad as both clocks may be: read a label from both after an hour.'
      }}
      <template v-if="timecodeDevice.forgets">
        It forgets its time when it is switched off: jam it after every battery.</template
      >
    </p>
  </form>
</template>

<style scoped>
.jam {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
  align-items: end;
  padding: 0.7rem 0.9rem;
  background: var(--sheet);
  border-left: 4px solid var(--pin);
}
.field input,
.field select {
  width: auto;
}
.times input {
  width: 13rem;
}
.num {
  max-width: 6rem;
}
.wide {
  flex-basis: 100%;
}
</style>
