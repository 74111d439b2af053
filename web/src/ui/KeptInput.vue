<script setup lang="ts">
import { ref, watch } from 'vue'

/** A field whose half-typed text stays while an answer of the server comes in; what is done is told by `change`. */
const props = defineProps<{ value: string | number | null | undefined }>()
const text = ref(props.value)
watch(
  () => props.value,
  (value) => (text.value = value),
)
</script>

<template>
  <!-- Vue leaves a lazy field alone while it has the focus and its own value is the same. -->
  <input v-model.lazy="text" />
</template>
