<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { MatchingOption } from '@/api/client'
import { formatLevel } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** The matching options of the last run, best first, each as the server computed it. */
const props = defineProps<{
  options: readonly MatchingOption[]
  locked: boolean
  more?: boolean
  run?: string
}>()
const emit = defineEmits<{ apply: [option: MatchingOption]; more: [] }>()
const asked = ref(false)
const FIRST = 2 // the best; the others when they are wanted
const isWhole = ref(false)
const shown = computed(() => (isWhole.value ? props.options : props.options.slice(0, FIRST)))
watch(
  () => [props.more, props.options],
  () => (asked.value = false),
)
watch(
  () => props.run,
  () => (isWhole.value = false),
)
const SCHOOLS = { clean: 'first where clean comes first', guide: 'first for a guide' } as const
</script>

<template>
  <section aria-labelledby="options">
    <header>
      <h2 id="options">Matching options</h2>
      <RouterLink v-if="run" class="no-print" :to="{ name: 'pads', query: { run } }"
        >Attenuator for this cable</RouterLink
      >
    </header>
    <p v-if="!options.length" class="soft">No switch, trim or pad would help this cable.</p>
    <table v-else class="plain-table">
      <thead>
        <tr>
          <th scope="col">option</th>
          <th scope="col" class="num">average</th>
          <th
            scope="col"
            class="num"
            title="By how much the expected peaks may rise before anything between microphone and file cuts them."
          >
            headroom
          </th>
          <th scope="col" class="num">gear noise</th>
          <th scope="col">result, and what it costs</th>
          <th class="no-print"><span class="visually-hidden">use it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="option in shown" :key="option.id" :class="{ clips: option.clips }">
          <th scope="row">
            {{ option.label }}
            <span v-for="school in option.best_for" :key="school" class="school small">{{
              SCHOOLS[school]
            }}</span>
          </th>
          <td class="num" data-name="average">
            {{ formatLevel(option.average_dbfs) }} ±{{ formatLevel(option.tolerance_db) }}
          </td>
          <td class="num" data-name="headroom">{{ formatLevel(option.headroom_db, 1) }} dB</td>
          <td class="num" data-name="gear noise">{{ formatLevel(option.noise_dbfs) }}</td>
          <td>
            <SeverityMark v-if="option.clips" severity="stop" :size="11" />
            {{ option.verdict }}<template v-if="option.ruled_by">; {{ option.ruled_by }} dominates</template>.
            <span class="soft">
              <template v-if="option.needs">Needs {{ option.needs }}. </template>
              <template v-if="option.loses">Takes away {{ option.loses }}. </template>
              <template v-if="option.risk">Risk: {{ option.risk }}.</template>
            </span>
          </td>
          <td class="no-print">
            <Button
              v-if="option.edits.length"
              outlined
              size="small"
              :disabled="locked"
              @click="emit('apply', option)"
              >Use</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <Button v-if="shown.length < options.length" class="no-print" text size="small" @click="isWhole = true"
      >Show {{ options.length - shown.length }} more</Button
    >
    <Button
      v-if="more"
      class="no-print"
      text
      size="small"
      :loading="asked"
      @click="((asked = true), (isWhole = true), emit('more'))"
      >Show options via another device</Button
    >
  </section>
</template>

<style scoped>
header {
  display: flex;
  gap: 1.5rem;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  font-size: 1.05rem;
}
.school {
  display: block;
  font-weight: 400;
  color: var(--accent);
}
.clips th,
.clips td {
  color: var(--stop);
}
@media screen and (width < 700px) {
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    padding: 0.6rem 0;
    border-top: 1px solid var(--line);
  }
  tbody th,
  tbody td {
    padding: 0.15rem 0;
    text-align: left;
    border: 0;
  }
  tbody th,
  tbody td:not([data-name]) {
    grid-column: 1 / -1;
  }
  [data-name]::before {
    display: block;
    font-size: 0.85rem;
    color: var(--ink-soft);
    content: attr(data-name);
  }
}
</style>
