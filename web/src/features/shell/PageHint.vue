<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { useSettings } from '@/stores/settings'
import { PURPOSES } from './stations'

/** What a page is for, in a line, until it is put away; it stays away on this machine. */
const route = useRoute()
const settings = useSettings()
const name = computed(() => String(route.name ?? ''))
const words = computed(() => (settings.hidden.includes(name.value) ? '' : PURPOSES[name.value]))
</script>

<template>
  <p v-if="words" class="hint small no-print">
    {{ words }}
    <button type="button" @click="settings.hide(name)">Put away</button>
  </p>
</template>

<style scoped>
.hint {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  justify-content: space-between;
  padding: 0.3rem 1.25rem;
  color: var(--ink-soft);
  border-bottom: 1px solid var(--line);
}
button {
  padding: 0;
  color: inherit;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
