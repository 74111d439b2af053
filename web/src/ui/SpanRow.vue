<script setup lang="ts">
import Button from 'primevue/button'

import { clockTime, minutesOf } from '@/format/time'
import KeptInput from '@/ui/KeptInput.vue'

/** A break or a move of the day: when it begins, and for how long. `before`: a time earlier than that is past midnight. */
const props = defineProps<{
  item: { label: string; at_min: number; length_min: number }
  before?: number
  disabled: boolean
}>()
const emit = defineEmits<{ change: [change: { at_min?: number; length_min?: number }]; remove: [] }>()
const value = (event: Event) => (event.target as HTMLInputElement).value

function setTime(event: Event) {
  const minutes = minutesOf(value(event))
  if (minutes !== null) emit('change', { at_min: minutes < (props.before ?? 0) ? minutes + 1440 : minutes })
}
</script>

<template>
  <li>
    <span class="name">{{ item.label }}</span>
    <KeptInput
      class="plain-input"
      inputmode="numeric"
      spellcheck="false"
      :value="clockTime(item.at_min)"
      :aria-label="`${item.label} begins`"
      :disabled="disabled"
      @change="setTime"
    />
    <KeptInput
      class="plain-input num"
      type="number"
      min="1"
      max="600"
      :value="item.length_min"
      :aria-label="`${item.label}, minutes`"
      :disabled="disabled"
      @change="emit('change', { length_min: Number(value($event)) })"
    />
    min
    <Button
      text
      size="small"
      :disabled="disabled"
      :aria-label="`Remove ${item.label}`"
      @click="emit('remove')"
      >Remove</Button
    >
  </li>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.6rem;
  align-items: center;
  padding-top: 0.4rem;
}
.name {
  flex: 0 1 9rem;
  overflow-wrap: anywhere;
}
.plain-input {
  display: inline-block;
  width: 4.6rem;
}
</style>
