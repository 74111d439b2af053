<script setup lang="ts">
import { TAPE } from '@/format/levels'

/** The number of a run as digits and as tape bands: what is taped to the lead itself. */
defineProps<{ number: number; tape: readonly string[] }>()
</script>

<template>
  <span class="tag" :title="`Cable ${number}, tape: ${tape.join(', ')}`">
    <span v-for="(colour, index) in tape" :key="index" class="band" :style="{ background: TAPE[colour] }" />
    <span class="digits">{{ number }}</span>
  </span>
</template>

<style scoped>
.tag {
  display: inline-flex;
  align-items: stretch;
  height: 1.25rem;
  border: 1px solid var(--line);
  border-radius: 2px;
  background: var(--chalk);
  font-size: 0.8rem;
  font-weight: 600;
  overflow: hidden;
}
.band {
  width: 0.4rem;
  border-right: 1px solid var(--line);
}
.digits {
  padding: 0 0.35rem;
  line-height: 1.2rem;
}
</style>
