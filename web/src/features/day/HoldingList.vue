<script setup lang="ts">
import { computed } from 'vue'

import type { Day, Holding } from '@/api/client'
import { clockTime } from '@/format/time'

/** What each device still holds, put right by a tap where its gauge says otherwise. */
const props = defineProps<{ day: Day; mayLog: boolean }>()
const emit = defineEmits<{ holds: [kind: string, device: string, left: number] }>()
const SHARES = [
  { left: 1, label: 'full' },
  { left: 0.75, label: '¾' },
  { left: 0.5, label: 'half' },
  { left: 0.25, label: '¼' },
  { left: 0, label: 'empty' },
]
const first = computed(() => {
  const found = new Map<string, Holding>()
  for (const item of props.day.holdings)
    if (item.kind !== 'jam' && !found.has(item.label)) found.set(item.label, item)
  return [...found.values()]
})
const until = (item: Holding) =>
  item.least_min === null
    ? 'all day'
    : `until about ${clockTime(Math.floor(item.usual_min ?? item.least_min))}`
</script>

<template>
  <details class="no-print">
    <summary>What everything still holds</summary>
    <ul>
      <li v-for="item in first" :key="item.label">
        <span>{{ item.label }}</span>
        <span class="soft">{{ until(item) }}</span>
        <span v-if="mayLog" class="shares">
          <button
            v-for="share in SHARES"
            :key="share.label"
            class="tap"
            type="button"
            :aria-label="`${item.label}: ${share.label}`"
            @click="emit('holds', item.kind, item.device, share.left)"
          >
            {{ share.label }}
          </button>
        </span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  min-height: 2.75rem;
  padding: 0.6rem 0;
  cursor: pointer;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.2rem 0.8rem;
  align-items: center;
  padding: 0.4rem 0;
  border-top: 1px solid var(--line);
}
.shares {
  display: flex;
  gap: 0.4rem;
  grid-column: 1 / -1;
}
.shares button {
  min-width: 3.2rem;
}
</style>
