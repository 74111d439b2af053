<script setup lang="ts">
import { ref } from 'vue'

import { useJob } from '@/stores/job'
import SeverityMark from '@/ui/SeverityMark.vue'
import SayLine from './SayLine.vue'

const job = useJob()
const say = ref<InstanceType<typeof SayLine> | null>(null)
const KINDS = [
  ['stop', 'won’t work', 'won’t work'],
  ['caution', 'to check', 'to check'],
  ['note', 'note', 'notes'],
] as const

defineExpose({ focus: () => say.value?.focus() })
</script>

<template>
  <header class="line">
    <h1>{{ job.state?.plan.name ?? '…' }}</h1>
    <SayLine ref="say" class="no-print" />
    <p v-if="job.state" class="verdict" role="status" aria-label="Verdict">
      <template v-for="[kind, one, many] in KINDS" :key="kind">
        <span v-if="job.state.counts[kind]" :class="`is-${kind}`" :data-count="kind">
          <SeverityMark :severity="kind" />
          {{ job.state.counts[kind] }} {{ job.state.counts[kind] === 1 ? one : many }}
        </span>
      </template>
      <span v-if="!job.findings.length" class="clear">no issues</span>
    </p>
  </header>
</template>

<style scoped>
.line {
  display: flex;
  gap: 1.2rem;
  align-items: center;
  min-height: 3.8rem;
  padding: 0.5rem 1.25rem;
  border-bottom: 1px solid var(--line);
}
h1 {
  max-width: 14rem;
  font-size: 1.15rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.verdict {
  display: flex;
  gap: 1rem;
  font-weight: 600;
  white-space: nowrap;
}
.verdict span {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}
@media (width < 900px) {
  .line {
    flex-wrap: wrap;
  }
}
</style>
