<script setup lang="ts">
import type { LoggedTake } from '@/api/client'

/** A take in the list: what it is called, when, how long, what it is good for; pointed at it opens. */
defineProps<{ take: LoggedTake; isOpen: boolean }>()
const emit = defineEmits<{ toggle: [] }>()
const notes = (take: LoggedTake) => take.notes.map(({ text }) => text).join(', ')
</script>

<template>
  <li :class="{ struck: take.struck, circled: take.status === 'circled' }">
    <button type="button" :aria-expanded="isOpen" @click="emit('toggle')">
      <strong>{{ take.label }}</strong>
      <span class="num">{{ take.timecode || 'not sent yet' }}</span>
      <span class="num length">{{ take.ends ? take.length : 'runs' }}</span>
      <span class="what"
        >{{ take.struck ? 'struck' : take.status_words }} <span class="soft">{{ notes(take) }}</span></span
      >
    </button>
    <slot v-if="isOpen" />
  </li>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--line);
}
button {
  display: grid;
  grid-template-columns: 5.2rem 7rem 3.4rem minmax(0, 1fr);
  gap: 0.5rem;
  align-items: baseline;
  width: 100%;
  min-height: 2.75rem;
  padding: 0.5rem 0;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
.what {
  overflow-wrap: anywhere;
}
.circled .what {
  font-weight: 700;
}
.circled .what .soft {
  font-weight: 400;
}
.struck strong,
.struck .num {
  text-decoration: line-through;
  color: var(--ink-soft);
}
@media (width < 420px) {
  button {
    grid-template-columns: 4.2rem 6.2rem 3rem minmax(0, 1fr);
    font-size: 0.95rem;
  }
}
</style>
