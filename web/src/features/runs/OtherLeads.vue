<script setup lang="ts">
import Button from 'primevue/button'
import { nextTick, useTemplateRef, watch } from 'vue'

import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'
import { useOtherLeads } from './useOtherLeads'

/** What else joins the two ends of a run: other leads, and options via another device with what each costs in noise. */
const props = defineProps<{ run: string; asked: boolean }>()
const job = useJob()
const { joins, isWanted, insertedDevices } = useOtherLeads(() => props.run)
const list = useTemplateRef<HTMLElement>('list')

watch(
  () => props.asked,
  (asked) => {
    if (asked) isWanted.value = true
  },
  { immediate: true },
)
watch(insertedDevices, async (found) => {
  if (!found || !props.asked) return
  await nextTick()
  list.value?.querySelector('button')?.focus() // Enter takes the best one
})
</script>

<template>
  <h3>Other cables that join these two</h3>
  <ul>
    <li v-for="join in joins" :key="join.label">
      <Button class="choice" outlined size="small" :disabled="job.readOnly" @click="job.edit(join.edits)">{{
        join.label
      }}</Button>
      <strong v-if="join.in_trunk" class="small">in the trunk</strong>
      <span class="soft small">{{ join.faults.join('; ') || `${join.unbalanced_m} m unbalanced` }}</span>
    </li>
  </ul>
  <h3>Via another device</h3>
  <Button v-if="!insertedDevices" outlined size="small" :loading="isWanted" @click="isWanted = true"
    >Show options</Button
  >
  <p v-else-if="!insertedDevices.length" class="soft small">No device joins these two.</p>
  <ul v-else ref="list" aria-label="Via another device">
    <li v-for="option in insertedDevices" :key="option.label">
      <Button class="choice" outlined size="small" :disabled="job.readOnly" @click="job.edit(option.edits)">{{
        option.label
      }}</Button>
      <span class="soft small">
        average {{ formatLevel(option.average_dbfs) }}, hiss {{ formatLevel(option.noise_dbfs) }} dBFS;
        {{ option.verdict }}{{ option.needs ? '. It is not in this job yet' : '' }}
      </span>
    </li>
  </ul>
</template>

<style scoped>
h3 {
  font-size: 1rem;
}
li {
  display: grid;
  gap: 0.2rem;
  justify-items: start;
  margin-bottom: 0.7rem;
}
.choice {
  text-align: left;
}
</style>
