<script setup lang="ts">
import Button from 'primevue/button'

import type { GainPlan, Pin } from '@/api/client'

/** What to set, device by device from the microphones on, with the reason of each. */
defineProps<{
  devices: readonly { device: string; label: string; steps: GainPlan['steps'] }[]
  locked: boolean
}>()
const emit = defineEmits<{ pin: [pin: Pin] }>()
const shortened = (label: string, device: string) => label.replace(device, '').trim()
</script>

<template>
  <ol class="devices">
    <li v-for="item in devices" :key="item.device">
      <h3>{{ item.label }}</h3>
      <ul>
        <li v-for="step in item.steps" :key="step.control" class="step">
          <span>{{ shortened(step.label, item.label) }}</span>
          <span class="values"
            ><span class="soft">{{ step.was }}</span> → <strong>{{ step.now }}</strong></span
          >
          <span class="soft">{{ step.why }}</span>
          <Button
            class="no-print"
            text
            size="small"
            :disabled="locked"
            :aria-label="`Keep as is: ${step.label}`"
            @click="emit('pin', { device: step.device, control: step.control })"
            >Keep as is</Button
          >
        </li>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
.devices {
  display: grid;
  gap: 0.9rem;
}
h3 {
  padding-bottom: 0.15rem;
  font-size: 1rem;
  border-bottom: 2px solid var(--line-strong);
}
.step {
  display: grid;
  grid-template-columns: 12rem 10rem 1fr auto;
  gap: 0 1rem;
  align-items: center;
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
}
.values {
  font-variant-numeric: tabular-nums;
}
@media (width < 1000px) {
  .step {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
