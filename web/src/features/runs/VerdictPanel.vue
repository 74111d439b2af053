<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { Finding, Fix } from '@/api/client'
import { useJob } from '@/stores/job'
import FindingList from '@/ui/FindingList.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { findingGroups, verdictWords } from '@/ui/findingGroups'

/** Whether one can shoot, and what to do first: findings by what they ask for, three at a time, all but the first group folded. */
const props = defineProps<{ findings: readonly Finding[]; title: string; narrowed: boolean }>()
const emit = defineEmits<{ all: []; apply: [fix: Fix]; boxes: [run: string] }>()
const AT_A_TIME = 3
const job = useJob()
const groups = computed(() => findingGroups(props.findings))
const whole = ref<ReadonlySet<string>>(new Set())
const showAll = (severity: string) => (whole.value = new Set([...whole.value, severity]))

// What is pointed at is seen, wherever it was folded; a group opened or folded by hand stays so until the pointer moves.
const isPointed = ({ id }: Finding) => id === job.pointed
const byHand = ref<string | null>(null) // '' folds all
watch(
  () => job.pointed,
  () => (byHand.value = null),
)
// What has become the gravest is shown: an undo may bring back a stop while a caution is pointed at.
watch(
  () => groups.value[0]?.severity,
  (gravest) => (byHand.value = gravest ?? null),
)
const open = computed(() => {
  const named = (severity: string) => groups.value.some((group) => group.severity === severity)
  if (byHand.value === '' || (byHand.value && named(byHand.value))) return byHand.value
  return (groups.value.find(({ findings }) => findings.some(isPointed)) ?? groups.value[0])?.severity
})
const shown = (severity: string, findings: readonly Finding[]) =>
  whole.value.has(severity) || findings.slice(AT_A_TIME).some(isPointed)
    ? findings
    : findings.slice(0, AT_A_TIME)
</script>

<template>
  <section class="verdict" aria-label="Findings">
    <header>
      <h2 v-if="narrowed">{{ title }}</h2>
      <h2 v-else>{{ verdictWords(findings) }}</h2>
      <Button v-if="narrowed" class="no-print" text size="small" @click="emit('all')">Show all</Button>
      <ul aria-label="Groups of findings">
        <li v-for="{ severity, title: name, findings: mine } in groups" :key="severity">
          <button
            type="button"
            :aria-expanded="open === severity"
            @click="byHand = open === severity ? '' : severity"
          >
            <SeverityMark :severity="severity" :size="12" /> {{ name }} ({{ mine.length }})
          </button>
        </li>
      </ul>
    </header>
    <template v-for="{ severity, findings: mine } in groups" :key="severity">
      <template v-if="open === severity">
        <FindingList
          :findings="shown(severity, mine)"
          @apply="emit('apply', $event)"
          @boxes="emit('boxes', $event)"
        />
        <Button
          v-if="shown(severity, mine).length < mine.length"
          class="no-print"
          text
          size="small"
          @click="showAll(severity)"
          >{{ mine.length - AT_A_TIME }} more</Button
        >
      </template>
    </template>
  </section>
</template>

<style scoped>
.verdict {
  container-type: inline-size;
  padding: 0.7rem 1.25rem 0.5rem;
  background: var(--sheet);
  border-bottom: 2px solid var(--line-strong);
}
header,
header ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  align-items: baseline;
}
header ul {
  margin-left: auto;
}
h2 {
  font-size: 1.2rem;
}
li button {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 2rem;
  padding: 0;
  color: var(--ink-soft);
  font-size: 0.95rem;
  background: none;
  border: 0;
  border-bottom: 3px solid transparent;
  cursor: pointer;
}
li button[aria-expanded='true'] {
  color: var(--ink);
  font-weight: 700;
  border-bottom-color: var(--pin);
}
</style>
