<script setup lang="ts">
import Button from 'primevue/button'

import type { FileTask } from '@/api/client'

/** How far something is that takes a while, and its end. */
defineProps<{ task: FileTask; what: string }>()
defineEmits<{ cancel: [] }>()
</script>

<template>
  <p class="bar" role="status">
    {{ what }}
    <progress :value="task.progress" max="1" :aria-label="what" />
    <span class="num">{{ Math.round(100 * task.progress) }} %</span>
    <Button size="small" outlined @click="$emit('cancel')">Cancel</Button>
  </p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
}
</style>
