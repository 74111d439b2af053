<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel, formatStep } from '@/format/levels'
import { computed } from 'vue'

/** How the level of one stage comes about: every decibel since the stage before, with how sure it is. */
const props = defineProps<{ ladder: Ladder; pointed: number }>()
const rung = computed(() => props.ladder.rungs[props.pointed])
const before = computed(() => props.ladder.rungs[props.pointed - 1])
</script>

<template>
  <section v-if="rung" aria-label="How it comes about">
    <h2>
      {{ rung.head }} {{ rung.tail }} <span class="soft">{{ rung.detail }}</span>
    </h2>
    <p v-if="!rung.begins && !before">No source yet: say who or what it records.</p>
    <ol v-else>
      <li v-if="before">
        {{ before.head }} {{ before.tail }} {{ formatLevel(before.average, 1) }} {{ before.unit }}
      </li>
      <li v-else>{{ rung.begins }}</li>
      <li v-for="step in rung.steps" :key="step.what">
        {{ step.what }} <strong>{{ formatStep(step.by_db) }}</strong>
        <span v-if="step.provenance" class="soft small">
          ±{{ formatLevel(step.tolerance_db, 1) }}, {{ step.provenance }}</span
        >
      </li>
      <li class="sum">
        <strong>{{ formatLevel(rung.average, 1) }} {{ rung.unit }}</strong>
      </li>
    </ol>
    <p v-if="rung.ceiling !== null" class="soft">
      clips at {{ formatLevel(rung.ceiling, 1) }} {{ rung.unit }}; peaks {{ formatLevel(rung.peak, 1)
      }}<template v-if="rung.over_db">, {{ formatLevel(rung.over_db, 1) }} dB over</template>, a burst
      {{ formatLevel(rung.burst, 1) }}
    </p>
  </section>
</template>

<style scoped>
section {
  display: flex;
  flex-wrap: wrap;
  gap: 0.15rem 1.2rem;
  align-items: baseline;
  min-height: 1.8rem;
  padding: 0.3rem 0;
  border-bottom: 1px solid var(--line);
}
h2 {
  font-size: 1rem;
}
@media screen and (width < 700px) {
  section {
    position: sticky; /* below an upright ladder, of which any stage may be pointed at */
    bottom: 0;
    background: var(--paper);
    border-top: 1px solid var(--line);
  }
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1rem;
}
li + li::before {
  margin-right: 0.5rem;
  content: '›';
}
.sum::before {
  content: '=' !important;
}
</style>
