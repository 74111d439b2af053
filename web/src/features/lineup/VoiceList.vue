<script setup lang="ts">
import type { VoiceStep } from '@/api/client'
import { formatLevel } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** Behind the tone: who is to speak, and what each track must hold of it. */
defineProps<{ voices: readonly VoiceStep[] }>()
</script>

<template>
  <section v-if="voices.length">
    <h3>Then check voices at take level</h3>
    <p class="heads soft small" aria-hidden="true"><span>average</span><span>peaks, dBFS</span></p>
    <ol>
      <li v-for="step in voices" :key="step.track">
        <span class="what">
          <strong>{{ step.label }}</strong>
          <span class="soft small">{{ step.sources.join(', ') }}</span>
          <span v-if="step.warning" class="is-stop small"
            ><SeverityMark severity="stop" :size="11" /> {{ step.warning }}</span
          >
        </span>
        <span class="num"
          >{{ formatLevel(step.average_dbfs)
          }}<span class="soft small"> ±{{ formatLevel(step.within_db) }}</span></span
        >
        <span class="num">{{ formatLevel(step.peak_dbfs) }}</span>
        <RouterLink
          v-if="step.sources.length === 1"
          class="no-print small"
          :to="{ name: 'levels', params: { track: step.track } }"
          >{{ step.is_heard ? 'heard' : 'measure it' }}</RouterLink
        >
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  border-top: 1px solid var(--line);
}
li,
.heads {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 5rem 5rem 5.5rem;
  gap: 0.2rem 0.6rem;
  align-items: center;
  padding: 0.35rem 0.4rem;
}
.heads {
  padding-block: 0;
  text-align: right;
}
.heads span:first-child {
  grid-column: 2;
}
li + li {
  border-top: 1px solid var(--line);
}
.what {
  display: grid;
}
</style>
