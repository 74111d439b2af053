<script setup lang="ts">
import Button from 'primevue/button'

import type { Finding, Fix } from '@/api/client'
import FindingList from './FindingList.vue'

/** The findings beside a picture, gravest first. */
defineProps<{ findings: readonly Finding[]; title: string; narrowed: boolean }>()
const emit = defineEmits<{ all: []; apply: [fix: Fix]; boxes: [run: string] }>()
</script>

<template>
  <aside class="pane" aria-label="Findings">
    <header>
      <h2>{{ title }}</h2>
      <Button v-if="narrowed" class="no-print" text size="small" @click="emit('all')">Show all</Button>
    </header>
    <p v-if="!findings.length" class="clear">
      No issues here. Record a test and listen to it at the last point there is.
    </p>
    <FindingList :findings="findings" @apply="emit('apply', $event)" @boxes="emit('boxes', $event)" />
  </aside>
</template>

<style scoped>
.pane {
  position: sticky;
  top: 0;
  align-self: start;
  max-height: calc(100vh - 3.8rem);
  min-height: calc(100vh - 3.8rem);
  overflow: auto;
  background: var(--sheet);
  border-left: 1px solid var(--line);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 3rem;
  padding: 0.6rem 1rem;
  border-bottom: 1px solid var(--line);
}
h2 {
  font-size: 1.05rem;
}
.clear {
  padding: 1rem;
}
@media (width < 1000px) {
  .pane {
    position: static;
    max-height: none;
    border-left: 0;
    border-top: 2px solid var(--line-strong);
  }
}
@media print {
  .pane {
    position: static;
    max-height: none;
    overflow: visible;
  }
}
</style>
