<script setup lang="ts">
import Button from 'primevue/button'

import type { DayFiles, FileFinding } from '@/api/client'
import SeverityMark from '@/ui/SeverityMark.vue'

/** What does not agree between files and log: what is lost first, each with what puts it right. */
defineProps<{ found: NonNullable<DayFiles['found']>; mayMend: boolean }>()
defineEmits<{ mend: [finding: FileFinding] }>()
</script>

<template>
  <section aria-label="Differences">
    <h3>
      {{ found.findings.length ? 'What does not agree' : 'Files and log agree' }}
    </h3>
    <ul class="findings">
      <li v-for="item in found.findings" :key="item.what + item.path + item.take">
        <SeverityMark :severity="item.severity" :size="13" />
        <div>
          <strong>{{ item.title }}</strong>
          <p>{{ item.text }}</p>
        </div>
        <Button
          v-if="item.can_be === 'log-take' && mayMend"
          size="small"
          outlined
          label="Log it as a take"
          :aria-label="`Log it as a take: ${item.path}`"
          @click="$emit('mend', item)"
        />
        <Button
          v-else-if="item.can_be === 'correct-take' && mayMend"
          size="small"
          outlined
          label="The file is right"
          :aria-label="`The file is right: ${item.path}`"
          @click="$emit('mend', item)"
        />
        <span v-else-if="item.can_be === 'copy'" class="soft small">put right in the copy</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.5rem;
}
.findings {
  display: grid;
  gap: 0.6rem;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 0.6rem;
  align-items: baseline;
}
@media (width < 700px) {
  li {
    grid-template-columns: auto minmax(0, 1fr);
  }
  li > :last-child:not(div) {
    grid-column: 2;
    justify-self: start;
  }
}
</style>
