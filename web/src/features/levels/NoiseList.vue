<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** Noise sources on the track, loudest first. */
defineProps<{ noises: Ladder['noises'] }>()
</script>

<template>
  <section>
    <h2>Noise sources</h2>
    <p class="head soft small" aria-hidden="true"><span>A-weighted</span><span>unweighted</span></p>
    <ol>
      <li v-for="noise in noises" :key="noise.name">
        <span>{{ noise.name }}</span>
        <span class="num">{{ formatLevel(noise.a_level, 1) }}</span>
        <span class="num soft">{{ formatLevel(noise.level, 1) }}</span>
        <span class="soft small words">
          {{ noise.words
          }}<template v-if="noise.unit !== 'dBFS'"
            >; {{ formatLevel(noise.born, 1) }} {{ noise.unit }} where it comes in</template
          >
        </span>
      </li>
    </ol>
    <p class="soft small">
      dBFS on the track, A-weighted and flat; the first rules. Verify by listening between words.
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.05rem;
}
.head {
  display: flex;
  gap: 0.6rem;
  justify-content: flex-end;
}
li {
  display: grid;
  grid-template-columns: 1fr 3.6rem 4.1rem;
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
