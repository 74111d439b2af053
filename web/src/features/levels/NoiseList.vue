<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** What makes the noise on the track, loudest first. */
defineProps<{ noises: Ladder['noises'] }>()
</script>

<template>
  <section>
    <h2>What makes the noise</h2>
    <ol>
      <li v-for="noise in noises" :key="noise.name">
        <span>{{ noise.name }}</span>
        <span class="num">{{ formatLevel(noise.level, 1) }}</span>
        <span class="soft small words">{{ noise.words }}</span>
      </li>
    </ol>
    <p class="soft small">dBFS on the track; the first rules. Verify by listening between words.</p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.05rem;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 0.3rem 0;
  border-top: 1px solid var(--line);
}
li:first-child {
  font-weight: 700;
}
.words {
  grid-column: 1 / -1;
  font-weight: 400;
}
</style>
