<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import { useLeadBox } from '@/composables/useLeadBox'

/** A line put together by taps: how many, of what, how long, where it lies. */
const props = defineProps<{ cases: readonly string[] }>()
const emit = defineEmits<{ line: [text: string] }>()
const box = useLeadBox()
const OTHERS = ['AA cells', 'battery 98 Wh', 'card', 'gaffer tape', 'stand'] as const
const METRES = ['0.5', '1', '2', '3', '5', '7.5', '10', '15', '20', '25', '50'] as const
const count = ref(1)
const what = ref('')
const metres = ref('5')
const place = ref('')
const hasLength = computed(() =>
  box.value?.leads.some(({ label, short_m }) => label === what.value && !short_m),
)
const text = computed(() => {
  const length = hasLength.value ? ` ${metres.value} m` : ''
  return what.value && `${count.value} ${what.value}${length}${place.value ? `, ${place.value}` : ''}`
})
</script>

<template>
  <details class="small">
    <summary>or choose from lists</summary>
    <div class="form-row">
      <span class="count" role="group" aria-label="How many">
        <Button size="small" outlined aria-label="One less" :disabled="count < 2" @click="count -= 1"
          >−</Button
        >
        <output class="num">{{ count }}</output>
        <Button size="small" outlined aria-label="One more" @click="count += 1">+</Button>
      </span>
      <label class="field"
        ><span>What</span
        ><select v-model="what">
          <option value=""></option>
          <option v-for="label in OTHERS" :key="label">{{ label }}</option>
          <option v-for="lead in box?.leads ?? []" :key="lead.id">{{ lead.label }}</option>
        </select></label
      >
      <label v-if="hasLength" class="field"
        ><span>Metres</span
        ><select v-model="metres">
          <option v-for="length in METRES" :key="length">{{ length }}</option>
        </select></label
      >
      <label v-if="props.cases.length" class="field"
        ><span>Case</span
        ><select v-model="place">
          <option value="">none</option>
          <option v-for="name in props.cases" :key="name">{{ name }}</option>
        </select></label
      >
      <Button size="small" outlined :disabled="!text" @click="emit('line', text)">Add to the line</Button>
    </div>
  </details>
</template>

<style scoped>
.count {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
</style>
