<script setup lang="ts">
import Button from 'primevue/button'

import type { Item } from './schema'
import { useDatasheet } from './useDatasheet'

/** For whoever has the manual open: its figures in, what they say of the input out. */
const props = defineProps<{ values: Item }>()
const emit = defineEmits<{ change: [values: Item] }>()
const { at, sheet, positions, problem, isReady, apply } = useDatasheet(
  () => props.values,
  (now) => emit('change', now),
)
const UNITS = ['dBu', 'dBV', 'mV', 'V'] as const
</script>

<template>
  <details class="sheet">
    <summary>From a datasheet</summary>
    <form @submit.prevent="apply">
      <label class="field">
        <span>Input and position</span>
        <select v-model="at" required>
          <option v-for="item in positions" :key="item.key" :value="item.key">{{ item.label }}</option>
        </select>
      </label>
      <label class="field">
        <span>Lowest gain, dB</span>
        <input v-model.number="sheet.lowest_db" type="number" step="any" required />
      </label>
      <label class="field">
        <span>Highest gain, dB</span>
        <input v-model.number="sheet.highest_db" type="number" step="any" required />
      </label>
      <label class="field">
        <span>Gain steps, dB</span>
        <input v-model.number="sheet.step_db" type="number" step="any" min="0.1" />
      </label>
      <div class="field" role="group" aria-label="Maximum input level">
        <span>Maximum input level, at the lowest gain</span>
        <span class="pair">
          <input v-model.number="sheet.most" type="number" step="any" aria-label="Maximum input level" />
          <select v-model="sheet.most_unit" aria-label="Maximum input level, unit">
            <option v-for="unit in UNITS" :key="unit">{{ unit }}</option>
          </select>
        </span>
      </div>
      <div class="field" role="group" aria-label="Sensitivity">
        <span>Sensitivity, at the highest gain</span>
        <span class="pair">
          <input v-model.number="sheet.sensitivity" type="number" step="any" aria-label="Sensitivity" />
          <select v-model="sheet.sensitivity_unit" aria-label="Sensitivity, unit">
            <option v-for="unit in UNITS" :key="unit">{{ unit }}</option>
          </select>
        </span>
      </div>
      <label class="field">
        <span>Sensitivity is for, dBFS</span>
        <input v-model.number="sheet.nominal_dbfs" type="number" step="any" max="0" />
      </label>
      <label class="field">
        <span>Equivalent input noise, dBu</span>
        <input v-model.number="sheet.ein_dbu" type="number" step="any" />
      </label>
      <label class="check"><input v-model="sheet.is_a_weighted" type="checkbox" /> noise is A-weighted</label>
      <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
      <p><Button type="submit" outlined size="small" :disabled="!isReady">Use these figures</Button></p>
    </form>
  </details>
</template>

<style scoped>
summary {
  padding: 0.15rem 0;
  font-weight: 700;
  cursor: pointer;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(15rem, 100%), 1fr));
  gap: 0.7rem 1.2rem;
  align-items: end;
  padding: 0.6rem 0 0.6rem 0.9rem;
  border-left: 2px solid var(--line);
}
form > p {
  grid-column: 1 / -1;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.4rem;
}
.check {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
</style>
