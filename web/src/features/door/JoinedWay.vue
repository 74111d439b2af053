<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { TwoThings } from '@/api/client'
import SeverityMark from '@/ui/SeverityMark.vue'

/** One way to join two things: the cable, what to set, what arrives, and what could go wrong; notes are folded. */
const props = defineProps<{ way: TwoThings['ways'][number]; isFirst: boolean }>()
const emit = defineEmits<{ use: [] }>()
const grave = computed(() => props.way.risks.filter(({ severity }) => severity !== 'note'))
const notes = computed(() => props.way.risks.filter(({ severity }) => severity === 'note'))
</script>

<template>
  <section :class="{ first: isFirst }">
    <div>
      <h2>{{ way.cable }}</h2>
      <p class="soft">{{ way.route }}</p>
      <p v-if="way.is_there">All of it lies in your trunk.</p>
      <ul v-if="way.settings.length" aria-label="To set">
        <li v-for="setting in way.settings" :key="setting">{{ setting }}</li>
      </ul>
      <p v-else>Nothing to set.</p>
      <p v-if="way.arrives" class="arrives">{{ way.arrives }}</p>
    </div>
    <div>
      <h3>What could go wrong</h3>
      <ul>
        <li v-for="risk in grave" :key="risk.title">
          <SeverityMark :severity="risk.severity" :size="12" /> <strong>{{ risk.title }}.</strong>
          {{ risk.text }}
        </li>
        <li v-if="!grave.length" class="soft">Nothing that would spoil the recording.</li>
      </ul>
      <details v-if="notes.length">
        <summary>{{ notes.length }} good to know</summary>
        <ul>
          <li v-for="risk in notes" :key="risk.title">
            <strong>{{ risk.title }}.</strong> {{ risk.text }}
          </li>
        </ul>
      </details>
    </div>
    <Button :outlined="!isFirst" @click="emit('use')">Start a job with this</Button>
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr) auto;
  gap: 0.6rem 2rem;
  align-items: start;
  padding-top: 0.8rem;
  border-top: 1px solid var(--line);
}
.first {
  border-top: 2px solid var(--line-strong);
}
h2 {
  font-size: 1.1rem;
}
h3 {
  font-size: 0.9rem;
  font-weight: 400;
  color: var(--ink-soft);
}
.arrives {
  font-weight: 600;
}
li {
  padding: 0.15rem 0;
}
@media (width < 700px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
