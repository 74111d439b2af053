<script setup lang="ts">
import Button from 'primevue/button'

import type { Sync } from '@/api/client'
import SeverityMark from '@/ui/SeverityMark.vue'

/** A camera file that was found nowhere, and where a single clap would put it. */
defineProps<{ name: string; guess?: Sync['guesses'][number]; reference: string }>()
const emit = defineEmits<{ look: [] }>()
</script>

<template>
  <li class="is-caution">
    <SeverityMark severity="caution" :size="11" /> {{ name }}: no match found. No timecode in common, no sound
    that both have, no claps that fit.
    <template v-if="guess">
      By one clap it may begin {{ guess.offset_s.toFixed(3).replace('-', '−') }} s into {{ reference }},
      confidence {{ guess.confidence.toFixed(2) }}: a guess.
      <Button size="small" outlined @click="emit('look')">Place by hand</Button>
    </template>
    <template v-else>Place it by a clap below.</template>
  </li>
</template>

<style scoped>
li {
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
</style>
