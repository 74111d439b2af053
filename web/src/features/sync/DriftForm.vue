<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Edit } from '@/api/client'
import { plainNumber } from '@/format/levels'
import { useJob } from '@/stores/job'

/** What two files showed of their clocks, kept for the devices that made them. */
const props = defineProps<{ ppm: number }>()
const job = useJob()
const first = ref('')
const second = ref('')
const devices = computed(() => job.state?.devices.filter((item) => item.is_recording) ?? [])
const keep = () =>
  job.edit([
    {
      kind: 'take-pair-drift',
      drift: {
        first: first.value,
        second: second.value,
        ppm: props.ppm,
        when: new Date().toISOString().slice(0, 16),
      },
    } as Edit,
  ])
</script>

<template>
  <form class="drift no-print" @submit.prevent="keep">
    <span>Keep {{ plainNumber(ppm) }} ppm for</span>
    <select v-model="second" class="plain-input" aria-label="camera">
      <option v-for="item in devices" :key="item.id" :value="item.id">{{ item.label }}</option>
    </select>
    <span>against</span>
    <select v-model="first" class="plain-input" aria-label="recorder">
      <option v-for="item in devices" :key="item.id" :value="item.id">{{ item.label }}</option>
    </select>
    <Button
      type="submit"
      size="small"
      outlined
      :disabled="job.readOnly || !first || !second || first === second"
      >Save measured drift</Button
    >
  </form>
</template>

<style scoped>
.drift {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.7rem;
  align-items: center;
}
select {
  width: auto;
}
</style>
