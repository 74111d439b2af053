<script setup lang="ts">
import type { Severity } from '@/api/client'

/** Octagon, triangle, disc: the shape carries the meaning, colour only helps. */
defineProps<{ severity: Severity; size?: number }>()
</script>

<template>
  <svg
    class="mark"
    :class="severity"
    :width="size ?? 14"
    :height="size ?? 14"
    viewBox="0 0 14 14"
    aria-hidden="true"
  >
    <polygon v-if="severity === 'stop'" points="4.1,0 9.9,0 14,4.1 14,9.9 9.9,14 4.1,14 0,9.9 0,4.1" />
    <polygon v-else-if="severity === 'caution'" points="7,0.5 14,13.5 0,13.5" />
    <circle v-else cx="7" cy="7" r="6" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
}
.stop {
  fill: var(--stop);
}
.caution {
  fill: var(--caution);
}
.note {
  fill: var(--note);
}
</style>
