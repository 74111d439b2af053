<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'

import type { Way } from '@/api/client'
import { formatLevel } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** The ways to match the last run, best first, each as the server computed it. */
const props = defineProps<{ ways: readonly Way[]; locked: boolean; more?: boolean }>()
const emit = defineEmits<{ apply: [way: Way]; more: [] }>()
const asked = ref(false)
watch(
  () => [props.more, props.ways],
  () => (asked.value = false),
)
const SCHOOLS = { clean: 'first where clean comes first', guide: 'first for a guide' } as const
</script>

<template>
  <section>
    <h2>Matching options</h2>
    <p v-if="!ways.length" class="soft">No switch, trim or pad would help this cable.</p>
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
        <tr v-for="way in ways" :key="way.id" :class="{ clips: way.clips }">
          <th scope="row">
            {{ way.label }}
            <span v-for="school in way.best_for" :key="school" class="school small">{{
              SCHOOLS[school]
            }}</span>
          </th>
          <td class="num">{{ formatLevel(way.average_dbfs) }} ±{{ formatLevel(way.tolerance_db) }}</td>
          <td class="num">{{ formatLevel(way.headroom_db, 1) }} dB</td>
          <td class="num">{{ formatLevel(way.noise_dbfs) }}</td>
          <td>
            <SeverityMark v-if="way.clips" severity="stop" :size="11" />
            {{ way.verdict }}<template v-if="way.ruled_by">; {{ way.ruled_by }} dominates</template>.
            <span class="soft">
              <template v-if="way.needs">Needs {{ way.needs }}. </template>
              <template v-if="way.loses">Takes away {{ way.loses }}. </template>
              <template v-if="way.risk">Risk: {{ way.risk }}.</template>
            </span>
          </td>
          <td class="no-print">
            <Button
              v-if="way.edits.length"
              outlined
              size="small"
              :disabled="locked"
              @click="emit('apply', way)"
              >Use</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <Button
      v-if="more"
      class="no-print"
      text
      size="small"
      :loading="asked"
      @click="((asked = true), emit('more'))"
      >Show options via another device</Button
    >
  </section>
</template>

<style scoped>
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
</style>
