<script setup lang="ts">
import { computed } from 'vue'

import type { PadWish, WantedPad } from '@/api/client'
import KeptInput from '@/ui/KeptInput.vue'

/** What is asked of a pad. */
const props = defineProps<{ wish: PadWish; wanted: WantedPad }>()
const emit = defineEmits<{ change: [changed: Partial<PadWish>] }>()

const LAYOUTS = [
  ['l', 'L, unbalanced, bridging'],
  ['u', 'U, balanced, bridging'],
  ['t', 'T, unbalanced, matched'],
  ['h', 'H, balanced, matched'],
  ['pi', 'π, unbalanced, matched'],
  ['o', 'O, balanced, matched'],
] as const
const NUMBERS = [
  ['loss_db', 'Loss, dB', 0.1, 120, 0.5],
  ['source_ohm', 'Source, Ω', 0.1, 1e7, 'any'],
  ['load_ohm', 'Load, Ω', 0.1, 1e7, 'any'],
  ['length_m', 'Cable, m', 0.1, 1000, 0.1],
] as const
const held = computed(() => props.wanted.fittings.find(({ id }) => id === props.wish.fitting)?.layouts)
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
const matched = computed(() => !['l', 'u'].includes(props.wish.layout ?? 'u'))
</script>

<template>
  <form class="form" @submit.prevent>
    <label class="field">
      <span>Built into</span>
      <select :value="wish.fitting" @change="emit('change', { fitting: value($event) })">
        <option value="">no cable, parts alone</option>
        <option v-for="item in wanted.fittings" :key="item.id" :value="item.id">{{ item.label }}</option>
      </select>
    </label>
    <label class="field">
      <span>Layout</span>
      <select :value="wish.layout" @change="emit('change', { layout: value($event) as PadWish['layout'] })">
        <option v-for="[id, words] in LAYOUTS" :key="id" :value="id" :disabled="held && !held.includes(id)">
          {{ words }}
        </option>
      </select>
    </label>
    <label v-for="[name, words, min, max, step] in NUMBERS" :key="name" class="field">
      <span>{{ name === 'source_ohm' && matched ? 'Both sides, Ω' : words }}</span>
      <KeptInput
        type="number"
        :min="min"
        :max="max"
        :step="step"
        :disabled="name === 'load_ohm' && matched"
        :value="wish[name]"
        @change="emit('change', { [name]: Number(value($event)) })"
      />
    </label>
    <label class="field">
      <span>Resistors</span>
      <select :value="wish.series" @change="emit('change', { series: value($event) as PadWish['series'] })">
        <option v-for="series in ['E12', 'E24', 'E96', 'exact'] as const" :key="series">{{ series }}</option>
      </select>
    </label>
    <label class="field">
      <span>± of each, %</span>
      <KeptInput
        type="number"
        min="0.1"
        max="20"
        step="0.1"
        :value="wish.tolerance_percent"
        placeholder="usual"
        @change="emit('change', { tolerance_percent: Number(value($event)) || null })"
      />
    </label>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 0.8rem;
  align-items: end;
}
.field:nth-child(-n + 2) {
  grid-column: span 2;
}
</style>
