<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Day, Edit } from '@/api/client'
import { clockTime, minutesOf } from '@/format/time'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'
import { useDaySheet } from './useDaySheet'

/** What is shot when: set-ups with their takes, each in a line that can be changed. */
const props = defineProps<{ day: Day }>()
const job = useJob()
const label = ref('')
const { problem, read } = useDaySheet()
const value = (event: Event) => (event.target as HTMLInputElement).value
type SetUp = Day['set_ups'][number]

const save = (item: SetUp, change: Partial<SetUp>) => {
  const { id, label: name, at_min, takes, take_min, between_min } = { ...item, ...change }
  void job.edit([{ kind: 'save-set-up', id, label: name, at_min, takes, take_min, between_min } as Edit])
}
function setTime(item: SetUp, event: Event) {
  const minutes = minutesOf(value(event))
  if (minutes !== null) save(item, { at_min: minutes < props.day.call_min ? minutes + 1440 : minutes })
}
function take(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file) void read(file)
}
const crew = (names: string) =>
  ({ kind: 'set-job', crew: names, ...(names.trim() ? {} : { hands: 1 }) }) as Edit
async function add() {
  const name = label.value.trim()
  if (!name) return
  const last = props.day.set_ups.at(-1)
  const at = last ? Math.ceil((last.at_min + last.length_min + 20) / 5) * 5 : props.day.call_min + 60
  const edit = { kind: 'save-set-up', label: name, at_min: at, takes: 3, take_min: 3 } as Edit
  if (await job.edit([edit])) label.value = ''
}
</script>

<template>
  <section aria-label="Set-ups">
    <h3>Set-ups</h3>
    <table v-if="day.set_ups.length" class="plain-table">
      <thead>
        <tr>
          <th scope="col">slate</th>
          <th scope="col">from</th>
          <th scope="col" class="num">takes</th>
          <th scope="col" class="num">min each</th>
          <th scope="col"><span class="visually-hidden">actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in day.set_ups" :key="item.id">
          <th scope="row">{{ item.label }}</th>
          <td>
            <KeptInput
              class="plain-input"
              :aria-label="`${item.label}, from`"
              :value="clockTime(item.at_min)"
              :disabled="job.readOnly"
              @change="setTime(item, $event)"
            />
          </td>
          <td>
            <KeptInput
              class="plain-input num"
              type="number"
              min="1"
              max="60"
              :aria-label="`${item.label}, takes`"
              :value="item.takes"
              :disabled="job.readOnly"
              @change="save(item, { takes: Math.round(Number(value($event))) })"
            />
          </td>
          <td>
            <KeptInput
              class="plain-input num"
              type="number"
              min="0.1"
              max="720"
              step="0.1"
              :aria-label="`${item.label}, minutes of a take`"
              :value="item.take_min"
              :disabled="job.readOnly"
              @change="save(item, { take_min: Number(value($event)) })"
            />
          </td>
          <td class="acts no-print">
            <Button
              size="small"
              text
              :disabled="job.readOnly"
              :aria-label="`+1 take of ${item.label}`"
              @click="job.edit([{ kind: 'add-take', set_up: item.id }])"
              >+1</Button
            >
            <Button
              size="small"
              text
              :disabled="job.readOnly"
              :aria-label="`Remove set-up ${item.label}`"
              @click="job.edit([{ kind: 'remove-set-up', id: item.id }])"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <form class="add no-print" @submit.prevent="add">
      <label class="field"
        ><span>New set-up</span
        ><input v-model="label" class="plain-input" maxlength="24" placeholder="12C" :disabled="job.readOnly"
      /></label>
      <Button type="submit" size="small" outlined :disabled="job.readOnly || !label.trim()"
        >Add set-up</Button
      >
    </form>
    <label class="field crew no-print"
      ><span>Sound crew, by name</span
      ><KeptInput
        class="plain-input"
        maxlength="400"
        placeholder="you alone"
        :value="day.crew"
        :disabled="job.readOnly"
        @change="job.edit([crew(value($event))])"
    /></label>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <details class="small soft no-print">
      <summary>What can be typed, or read from a file</summary>
      <label class="field"
        ><span>From a calendar (.ics) or a table (.csv: what, at, minutes, takes, take_min)</span
        ><input type="file" accept=".ics,.csv,text/calendar,text/csv" :disabled="job.readOnly" @change="take"
      /></label>

      <code>set-up 12C at 10:30, 4 takes of 3 min</code>, <code>break lunch at 13:00, 45 min</code>,
      <code>company move to the tower at 14:00, 40 min</code>, <code>place camera b at the walkway</code>,
      <code>set job temperature 0, crew Ann and Ben</code>.
    </details>
  </section>
</template>

<style scoped>
tbody th {
  min-width: 3rem;
}
section {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}
td .plain-input {
  min-width: 4.2rem;
  max-width: 6rem;
}
.acts {
  white-space: nowrap;
}
.add {
  display: flex;
  gap: 0.6rem;
  align-items: end;
}
code {
  font: inherit;
  font-weight: 600;
}
</style>
