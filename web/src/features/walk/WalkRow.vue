<script setup lang="ts">
import type { Walk } from '@/api/client'

/** One thing of a walk, with what was seen of it: a tick, a cross, or an empty box to print. */
defineProps<{ item: Walk['groups'][number]['items'][number]; here: boolean }>()
const emit = defineEmits<{ choose: [] }>()
const WORDS = { open: 'not looked at', good: 'good', fault: 'fault' } as const
const time = (when: string) =>
  new Date(when).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <li :id="`walk-${item.id}`">
    <button
      type="button"
      :class="[item.mark, { here }]"
      :aria-current="here ? 'step' : undefined"
      @click="emit('choose')"
    >
      <svg width="22" height="22" viewBox="0 0 22 22" role="img" :aria-label="WORDS[item.mark]">
        <rect x="1" y="1" width="20" height="20" />
        <path v-if="item.mark === 'good'" d="M5 11 l4 5 l8 -10" />
        <path v-else-if="item.mark === 'fault'" d="M5 5 l12 12 M17 5 l-12 12" />
      </svg>
      <span class="text">{{ item.text }}</span>
      <span v-if="item.made && item.mark !== 'open'" class="soft small when"
        >{{ item.who }} {{ time(item.made) }}</span
      >
    </button>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid var(--line);
}
button {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 0.3rem 0.2rem;
  text-align: left;
  background: none;
  border: 0;
  border-left: 4px solid transparent;
  cursor: pointer;
}
button.here {
  background: var(--sheet);
  border-left-color: var(--pin);
}
svg {
  flex: none;
}
rect {
  fill: var(--chalk);
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
path {
  fill: none;
  stroke: var(--accent);
  stroke-width: 3;
}
.fault path {
  stroke: var(--stop);
}
.fault span {
  color: var(--stop);
}
@media screen and (width < 700px) {
  .text {
    display: -webkit-box;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2; /* the whole of it stands above the buttons */
  }
}
.when {
  margin-left: auto;
  white-space: nowrap;
}
</style>
