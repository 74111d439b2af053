<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Clock, Edit } from '@/api/client'
import { clockTime, minutesOf } from '@/format/time'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'
import SpanRow from '@/ui/SpanRow.vue'

/** When the day begins and ends, by how much clocks may part, and its breaks, in which jamming stops no work. */
const props = defineProps<{ clock: Clock }>()
const job = useJob()
const label = ref('')
const value = (event: Event) => (event.target as HTMLInputElement).value

function setDay(field: 'day_begins_min' | 'day_ends_min', event: Event) {
  const minutes = minutesOf(value(event))
  if (minutes === null) return
  // A day that ends before it began goes on past midnight.
  const past = field === 'day_ends_min' && minutes <= props.clock.day_begins_min
  void job.edit([{ kind: 'set-job', [field]: past ? minutes + 1440 : minutes } as Edit])
}
const setBreak = (item: Clock['breaks'][number], change: { at_min?: number; length_min?: number }) =>
  void job.edit([{ kind: 'set-break', ...item, ...change } as Edit])
async function add() {
  const wanted = label.value.trim()
  const middle = Math.round((props.clock.day_begins_min + props.clock.day_ends_min) / 2)
  if (wanted && (await job.edit([{ kind: 'set-break', label: wanted, at_min: middle, length_min: 30 }])))
    label.value = ''
}
</script>

<template>
  <section class="day" aria-label="The day">
    <label
      >from
      <KeptInput
        class="plain-input"
        inputmode="numeric"
        spellcheck="false"
        :value="clockTime(clock.day_begins_min)"
        :disabled="job.readOnly"
        @change="setDay('day_begins_min', $event)"
    /></label>
    <label
      >to
      <KeptInput
        class="plain-input"
        inputmode="numeric"
        spellcheck="false"
        :value="clockTime(clock.day_ends_min)"
        :disabled="job.readOnly"
        @change="setDay('day_ends_min', $event)"
    /></label>
    <label
      >maximum drift
      <KeptInput
        class="plain-input num"
        type="number"
        min="0.05"
        max="100"
        step="0.05"
        :value="clock.limit_frames"
        :disabled="job.readOnly"
        @change="job.edit([{ kind: 'set-job', drift_limit_frames: Number(value($event)) }])"
      />
      frames</label
    >
    <details class="breaks no-print">
      <summary>
        {{ clock.breaks.length ? clock.breaks.map(({ label: name }) => name).join(', ') : 'no breaks' }}
      </summary>
      <ul>
        <SpanRow
          v-for="item in clock.breaks"
          :key="item.id"
          :item="item"
          :before="clock.day_begins_min"
          :disabled="job.readOnly"
          @change="(change) => setBreak(item, change)"
          @remove="job.edit([{ kind: 'remove-break', id: item.id }])"
        />
        <li>
          <input v-model="label" class="plain-input name" placeholder="another break" @keydown.enter="add" />
          <Button text size="small" :disabled="job.readOnly || !label.trim()" @click="add">Add</Button>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.day {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.1rem;
  align-items: center;
}
.plain-input {
  display: inline-block;
  width: 4.6rem;
}
li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  padding-top: 0.4rem;
}
li .name {
  width: 9rem;
}
</style>
