<script setup lang="ts">
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, ref, watch } from 'vue'

import type { Control } from '@/api/client'
import { formatSigned, formatStep } from '@/format/levels'
import { useJob } from '@/stores/job'
import KeptInput from './KeptInput.vue'

/** One control of a device. A knob tells every position while it moves, and once where it comes to rest. */
const props = defineProps<{ control: Control; disabled?: boolean }>()
const emit = defineEmits<{ moving: [value: number]; set: [value: string | number | boolean] }>()

const job = useJob()
const held = ref<number | null>(null)
watch(
  () => [props.control.value, job.refusals],
  () => (held.value = null),
)
const position = computed(() => held.value ?? Number(props.control.value))
const id = computed(() => `${props.control.device}-${props.control.id}`)

function move(event: Event) {
  held.value = Number((event.target as HTMLInputElement).value)
  emit('moving', held.value)
}
</script>

<template>
  <div class="control" :class="control.kind">
    <label :for="id">{{ control.label }}{{ control.kind === 'frequency' ? ', MHz' : '' }}</label>
    <template v-if="control.kind === 'knob'">
      <output class="num" :for="id"
        >{{ formatSigned(position)
        }}<span v-if="control.gives_db !== null && held === null" class="soft small gives">
          ({{ control.mark === null ? '' : `mark ${control.mark}, ` }}gives
          {{ formatStep(control.gives_db) }})</span
        ></output
      >
      <input
        :id="id"
        type="range"
        :min="control.minimum ?? 0"
        :max="control.maximum ?? 0"
        :step="control.step ?? 1"
        :value="position"
        :disabled="disabled"
        @input="move"
        @change="emit('set', position)"
      />
    </template>
    <KeptInput
      v-else-if="control.kind === 'frequency'"
      :id="id"
      class="plain-input num"
      type="number"
      min="0"
      max="7000"
      step="0.001"
      :value="Number(control.value) || ''"
      placeholder="MHz, not set"
      :disabled="disabled"
      @change="emit('set', Number(($event.target as HTMLInputElement).value) || 0)"
    />
    <ToggleSwitch
      v-else-if="control.kind === 'switch'"
      :key="job.refusals"
      :input-id="id"
      :model-value="Boolean(control.value)"
      :disabled="disabled"
      @update:model-value="emit('set', $event)"
    />
    <select
      v-else
      :id="id"
      :key="job.refusals"
      class="plain-input"
      :value="String(control.value)"
      :disabled="disabled"
      @change="emit('set', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="option in control.options" :key="option.value" :value="option.value">
        {{ option.label }}
      </option>
    </select>
  </div>
</template>

<style scoped>
.control {
  display: grid;
  gap: 0.15rem;
  font-size: 0.9rem;
}
.control.knob {
  grid-template-columns: 1fr auto;
}
.control.switch {
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  min-height: 2rem;
  align-items: center;
}
label {
  color: var(--ink-soft);
}
input[type='range'] {
  grid-column: 1 / -1;
  width: 100%;
  height: 1.5rem;
  margin: 0;
  accent-color: var(--accent);
}
output {
  font-weight: 600;
}
.gives {
  margin-left: 0.3rem;
  font-weight: 400;
}
</style>
