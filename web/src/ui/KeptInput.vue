<script setup lang="ts">
import { ref, useTemplateRef, watch } from 'vue'

import { useJob } from '@/stores/job'

/** A field whose half-typed text stays while an answer of the server comes in; what is done is told by `change`. */
const props = defineProps<{ value: string | number | null | undefined }>()
const job = useJob()
const text = ref(props.value)
const field = useTemplateRef<HTMLInputElement>('field')
watch(
  () => props.value,
  (value) => (text.value = value),
)
watch(
  () => job.refusals,
  () => {
    const isTyped = field.value?.value !== String(text.value ?? '')
    if (!isTyped) text.value = props.value // what was asked for did not come to be
  },
)
</script>

<template>
  <!-- Vue leaves a lazy field alone while it has the focus and its own value is the same. -->
  <input ref="field" v-model.lazy="text" />
</template>
