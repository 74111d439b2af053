<script setup lang="ts">
import Button from 'primevue/button'

import type { Recording } from '@/api/client'

/** What was dropped in, newest first: how far it is, and what came of it. */
defineProps<{ recordings: readonly Recording[]; opened: string; sending: string }>()
const emit = defineEmits<{ open: [id: string]; cancel: [id: string]; remove: [id: string] }>()
const under = ({ state }: Recording) => state === 'waiting' || state === 'reading'
const WORDS = { waiting: 'waits', reading: 'is measured', done: '', failed: 'failed', cancelled: 'cancelled' }
</script>

<template>
  <ul v-if="recordings.length || sending" class="recordings">
    <li v-if="sending" role="status">{{ sending }} is sent…</li>
    <li v-for="item in recordings" :key="item.id" :class="{ here: item.id === opened }">
      <button v-if="item.state === 'done'" type="button" class="name" @click="emit('open', item.id)">
        {{ item.name }}
      </button>
      <span v-else class="name">{{ item.name }}</span>
      <template v-if="under(item)">
        <progress :value="item.progress" max="1" :aria-label="`${item.name} ${WORDS[item.state]}`" />
        <Button text size="small" @click="emit('cancel', item.id)">Cancel</Button>
      </template>
      <template v-else>
        <span v-if="item.state !== 'done'" class="is-caution small">{{
          item.message || WORDS[item.state]
        }}</span>
        <Button
          text
          size="small"
          class="remove"
          :aria-label="`Remove ${item.name}`"
          @click="emit('remove', item.id)"
          >Remove</Button
        >
      </template>
    </li>
  </ul>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
  min-height: 2.4rem;
  padding-left: 0.4rem;
  border-top: 1px solid var(--line);
  border-left: 4px solid transparent;
}
li.here {
  background: var(--sheet);
  border-left-color: var(--pin);
}
.name {
  padding: 0.3rem 0;
  overflow-wrap: anywhere;
  text-align: left;
  background: none;
  border: 0;
}
button.name {
  text-decoration: underline;
  cursor: pointer;
}
progress {
  flex: 1;
  max-width: 14rem;
  accent-color: var(--accent);
}
.remove {
  margin-left: auto;
}
</style>
