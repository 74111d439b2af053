<script setup lang="ts">
import { computed, ref } from 'vue'

import { useLabelPapers } from './useLabelPapers'

/** The paper that goes along. */
const props = defineProps<{ job: string }>()
const paper = ref<'a4' | 'letter'>('a4')
const label = ref('a4-24')
const labels = useLabelPapers(() => props.job)
const at = computed(() => `/api/jobs/${props.job}/paper`)
</script>

<template>
  <section class="paper no-print" aria-label="Paper">
    <h3>Paper</h3>
    <p>
      Patch of the whole job: <a :href="`${at}/patch.pdf?paper=${paper}`">PDF</a>,
      <a :href="`${at}/patch.pdf?paper=a3`">A3</a>, <a :href="`${at}/patch.svg`">SVG</a>
    </p>
    <p>
      <a :href="`${at}/settings.pdf?paper=${paper}`">Settings of each device</a> ·
      <a :href="`${at}/runs.pdf?paper=${paper}`">Cables by number</a> <a :href="`${at}/runs.csv`">CSV</a> ·
      <a :href="`/api/jobs/${job}/trunk/packing.pdf?paper=${paper}`">Packing list</a> ·
      <a :href="`${at}/card.pdf`">Card: what must be right</a>
    </p>
    <p class="labels">
      <label
        ><span class="visually-hidden">Labels on</span
        ><select v-model="label">
          <option v-for="item in labels ?? []" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select></label
      >
      <a :href="`${at}/labels.pdf?label=${label}`">Labels for both ends of each cable</a>
      <span class="soft small">Print them at 100 %, not "fit to page".</span>
      <label class="small"
        ><span class="visually-hidden">Paper size</span
        ><select v-model="paper">
          <option value="a4">A4</option>
          <option value="letter">Letter</option>
        </select></label
      >
    </p>
  </section>
</template>

<style scoped>
.paper {
  display: grid;
  gap: 0.35rem;
}
.labels {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
}
</style>
