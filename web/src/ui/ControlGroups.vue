<script setup lang="ts">
import { computed } from 'vue'

import type { Control } from '@/api/client'
import ControlField from '@/ui/ControlField.vue'

/** The controls on a way, in the order of the way, a group for each port that has any. */
const props = defineProps<{
  rungs: readonly { label: string; controls: readonly Control[] }[]
  locked: boolean
}>()
const emit = defineEmits<{
  moving: [control: Control, value: number]
  set: [control: Control, value: string | number | boolean]
}>()
const groups = computed(() =>
  props.rungs
    .filter((rung) => rung.controls.length)
    .map((rung) => ({
      label: rung.label,
      // The knob is what is reached for most.
      controls: [...rung.controls].sort(
        (one, other) => Number(other.kind === 'knob') - Number(one.kind === 'knob'),
      ),
    })),
)
</script>

<template>
  <div class="controls no-print" role="group" aria-label="Controls">
    <fieldset v-for="rung in groups" :key="rung.label" :disabled="locked">
      <legend>{{ rung.label }}</legend>
      <ControlField
        v-for="control in rung.controls"
        :key="control.id"
        :control="control"
        :disabled="locked"
        @moving="emit('moving', control, $event)"
        @set="emit('set', control, $event)"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 0.4rem 1.6rem;
  margin-top: 0.4rem;
}
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.3rem 1rem;
  align-content: start;
  min-width: 0;
  margin: 0;
  padding: 0.2rem 0 0;
  border: 0;
  border-top: 1px solid var(--line-strong);
}
legend {
  padding: 0 0.4rem 0 0;
  font-weight: 700;
}
</style>
