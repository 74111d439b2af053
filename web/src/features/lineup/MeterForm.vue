<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'

/** What a device's own meter showed while this was recorded: by how much it is wrong is then known. */
const props = defineProps<{
  beside: readonly { name: string; level: number | null }[]
  shown: readonly number[]
  device: string
}>()
const emit = defineEmits<{ take: [shown: (number | null)[]] }>()
const job = useJob()
const typed = ref<(number | '')[]>(props.beside.map((_, index) => props.shown[index] ?? ''))
const take = () =>
  emit(
    'take',
    typed.value.map((value) => (value === '' ? null : value)),
  )
</script>

<template>
  <form class="meter" @submit.prevent="take">
    <fieldset>
      <legend class="small soft">What the meter of {{ device }} showed beside it, dBFS</legend>
      <label v-for="(item, index) in beside" :key="item.name" class="field"
        ><span>{{ item.name }}: {{ formatLevel(item.level, 1) }}</span
        ><input v-model.number="typed[index]" type="number" min="-120" max="24" step="0.1"
      /></label>
      <Button
        type="submit"
        size="small"
        outlined
        :disabled="job.readOnly || typed.every((value) => value === '')"
        >Save meter correction</Button
      >
    </fieldset>
  </form>
</template>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.8rem;
  align-items: end;
  padding: 0;
  border: 0;
}
.field {
  width: 8.5rem;
}
</style>
