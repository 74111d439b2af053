<script setup lang="ts">
import type { Finding, Fix } from '@/api/client'
import { useAdvice } from '@/stores/advice'
import { useJob } from '@/stores/job'
import FindingCard from './FindingCard.vue'

/** Findings as cards, of which one is pointed at. */
defineProps<{ findings: readonly Finding[] }>()
const emit = defineEmits<{ apply: [fix: Fix]; boxes: [run: string] }>()
const job = useJob()
const advice = useAdvice()
</script>

<template>
  <FindingCard
    v-for="finding in findings"
    :key="finding.id"
    :finding="finding"
    :fixes="job.readOnly ? [] : advice.of(finding.id)"
    :is-thinking="advice.isThinking"
    :pointed="finding.id === job.pointed"
    :locked="job.readOnly"
    @point="job.pointed = finding.id"
    @apply="emit('apply', $event)"
    @boxes="emit('boxes', $event)"
  />
</template>
