<script setup lang="ts">
import { ref, useTemplateRef, watch } from 'vue'

import { useJob } from '@/stores/job'

/**
 * A field that nobody else writes into while somebody is in it: what the plan holds meanwhile is shown when it is left, or
 * as the answer to what was done here. What is done is told by `change`.
 */
const props = defineProps<{ value: string | number | null | undefined }>()
const job = useJob()
const text = ref(props.value)
const field = useTemplateRef<HTMLInputElement>('field')
let isLate = false // the plan moved on while somebody was in here
let awaitsAnswer = false // from what was done here until somebody comes into it again

function isTyped(): boolean {
  const typed = field.value?.value
  if (typed === undefined || typed === String(text.value ?? '')) return false
  return field.value?.type !== 'number' || Number(typed) !== Number(text.value)
}

// The plan has moved on, or what was asked for did not come to be.
watch(
  () => [props.value, job.refusals],
  () => {
    isLate = isTyped() || (document.activeElement === field.value && !awaitsAnswer)
    if (isLate) return
    text.value = props.value
    awaitsAnswer = false
  },
)

function leave() {
  if (isLate && !isTyped()) text.value = props.value
  isLate = false
}

function done() {
  isLate = false
  awaitsAnswer = true
}
</script>

<template>
  <!-- Vue leaves a lazy field alone while it has the focus and its own value is the same. A browser would fill in, after a
       reload, what was typed before it, and not what the plan holds. -->
  <input
    ref="field"
    v-model.lazy="text"
    autocomplete="off"
    @focus="awaitsAnswer = false"
    @change="done"
    @blur="leave"
  />
</template>
