<script setup lang="ts">
import ToggleSwitch from 'primevue/toggleswitch'

import type { Lead, Run } from '@/api/client'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'

/** The leads of a run with their lengths, and whether its ends are tied up. */
const props = defineProps<{ run: Run; lead: Lead }>()
const job = useJob()

function setLength(index: number, event: Event) {
  const length_m = Number((event.target as HTMLInputElement).value)
  void job.edit(() => {
    const parts = (props.run.parts ?? []).map((part, at) => (at === index ? { ...part, length_m } : part))
    return [{ kind: 'set-parts', run: props.run.id, parts }]
  })
}
</script>

<template>
  <div class="lengths">
    <label v-for="(part, index) in run.parts" :key="index" class="field">
      <span>{{ lead.parts[index] }}{{ part.branch ? ` (${part.branch})` : '' }}, length in m</span>
      <KeptInput
        type="number"
        min="0"
        max="500"
        step="0.1"
        :value="part.length_m"
        :disabled="job.readOnly"
        @change="setLength(index, $event)"
      />
    </label>
    <p class="tied">
      <label :for="`tied-${run.id}`">Strain relief fitted at both ends</label>
      <ToggleSwitch
        :key="job.refusals"
        :input-id="`tied-${run.id}`"
        :model-value="run.strain_relief ?? false"
        :disabled="job.readOnly"
        @update:model-value="job.edit([{ kind: 'set-strain-relief', run: run.id, on: $event }])"
      />
    </p>
  </div>
</template>

<style scoped>
.lengths {
  display: grid;
  gap: 0.6rem;
}
.tied {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
