<script setup lang="ts">
import Button from 'primevue/button'
import { nextTick, ref, useTemplateRef, watch } from 'vue'

import { api, type Join, type Way } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'

/** What else joins the two ends of a run: other leads, and ways by another box with what each costs in noise. */
const props = defineProps<{ run: string; asked: boolean }>()
const job = useJob()
const joins = ref<Join[]>([])
const detours = ref<Way[] | null>(null)
const busy = ref(false)
const list = useTemplateRef<HTMLElement>('list')

async function askForBoxes() {
  if (!job.newest || busy.value) return
  busy.value = true
  try {
    detours.value = await api.detours(job.newest.job, props.run)
  } finally {
    busy.value = false
  }
}

watch(
  [() => props.run, () => job.newest?.revision],
  async ([run]) => {
    detours.value = null
    joins.value = job.newest ? await api.joins(job.newest.job, run) : []
  },
  { immediate: true },
)
watch(
  () => props.asked,
  async (asked) => {
    if (!asked) return
    await askForBoxes()
    await nextTick()
    list.value?.querySelector('button')?.focus() // Enter takes the best one
  },
  { immediate: true },
)
</script>

<template>
  <h3>Other leads that join these two</h3>
  <ul>
    <li v-for="join in joins" :key="join.label">
      <Button class="choice" outlined size="small" :disabled="job.readOnly" @click="job.edit(join.edits)">{{
        join.label
      }}</Button>
      <span class="soft small">{{ join.faults.join('; ') || `${join.unbalanced_m} m unbalanced` }}</span>
    </li>
  </ul>
  <h3>By way of another box</h3>
  <Button v-if="!detours" outlined size="small" :loading="busy" @click="askForBoxes"
    >Work out what it would give</Button
  >
  <p v-else-if="!detours.length" class="soft small">No box joins these two.</p>
  <ul v-else ref="list" aria-label="By way of another box">
    <li v-for="detour in detours" :key="detour.label">
      <Button class="choice" outlined size="small" :disabled="job.readOnly" @click="job.edit(detour.edits)">{{
        detour.label
      }}</Button>
      <span class="soft small">
        average {{ formatLevel(detour.average_dbfs) }}, hiss {{ formatLevel(detour.noise_dbfs) }} dBFS;
        {{ detour.verdict }}{{ detour.needs === 'nothing' ? '' : '. It is not in this job yet' }}
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
