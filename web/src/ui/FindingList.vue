<script setup lang="ts">
import type { Finding, Fix } from '@/api/client'
import { useJob } from '@/stores/job'
import FindingCard from './FindingCard.vue'

/** Findings as cards, of which one is pointed at. */
defineProps<{ findings: readonly Finding[] }>()
const emit = defineEmits<{ apply: [fix: Fix]; boxes: [run: string] }>()
const job = useJob()
</script>

<template>
  <FindingCard
    v-for="finding in findings"
    :key="finding.id"
    :finding="finding"
    :pointed="finding.id === job.pointed"
    :locked="job.readOnly"
    @point="job.pointed = finding.id"
    @apply="emit('apply', $event)"
    @boxes="emit('boxes', $event)"
  />
</template>
