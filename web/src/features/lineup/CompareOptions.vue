<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Recording } from '@/api/client'
import { formatLevel, formatStep } from '@/format/levels'
import PlotView from '@/ui/PlotView.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { useCompare } from './useCompare'

/** Ways to match the run of a step, recorded with tone and silence, beside each other and beside the plan. */
const props = defineProps<{ run: string; name: string; recordings: readonly Recording[] }>()
const emit = defineEmits<{ recorded: [] }>()
const { options, chosen, compared, problem, busy, usable, given, load, record, compare } = useCompare(
  computed(() => props.run),
  computed(() => props.recordings),
)
const MARKS = [31.5, 125, 500, 2000, 8000]
const curves = computed(() => [
  compared.value[0]?.bands.map(({ hertz }) => hertz) ?? [],
  ...compared.value.map(({ bands }) => bands.map(({ level }) => level)),
])
const levels = computed(() =>
  compared.value.flatMap(({ bands }) => bands.flatMap(({ level }) => (level === null ? [] : [level]))),
)
const low = computed(() => Math.floor(Math.min(-60, ...levels.value) / 10) * 10)
const high = computed(() => Math.ceil(Math.max(-40, ...levels.value) / 10) * 10)

async function simulate() {
  await record()
  emit('recorded')
}
</script>

<template>
  <details class="no-print" @toggle="($event.target as HTMLDetailsElement).open && !options.length && load()">
    <summary>Compare the matching options of {{ name }}</summary>
    <p class="small soft">
      Record tone and then a few seconds of silence with each option, drop the files in, and say which is
      which. The noise of each is compared with the prediction.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <div v-if="options.length" class="given">
      <label v-for="option in options" :key="option.id" class="field"
        ><span>{{ option.label }}</span
        ><select v-model="chosen[option.id]" :aria-label="`Recording of: ${option.label}`">
          <option value="">no recording</option>
          <option v-for="item in usable" :key="item.id" :value="item.id">{{ item.name }}</option>
        </select></label
      >
    </div>
    <p v-if="options.length" class="acts">
      <Button size="small" :disabled="busy || given.length < 2" @click="compare">Compare</Button>
      <Button size="small" outlined :disabled="busy" @click="simulate">Record them in the simulation</Button>
      <span v-if="busy" role="status">processing…</span>
    </p>
    <template v-if="compared.length">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col" class="num">place</th>
            <th scope="col">option</th>
            <th scope="col" class="num">tone</th>
            <th scope="col" class="num">noise</th>
            <th scope="col" class="num">below the tone</th>
            <th scope="col" class="num">predicted</th>
            <th scope="col">what makes it</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in compared" :key="item.option">
            <td class="num">
              {{ item.place
              }}<span v-if="item.place !== item.predicted_place" class="soft small">
                not {{ item.predicted_place }}</span
              >
            </td>
            <th scope="row">
              {{ item.label }}
              <p v-if="item.remark" :class="item.is_cut_off ? 'is-stop' : 'is-caution'" class="small">
                <SeverityMark :severity="item.is_cut_off ? 'stop' : 'caution'" :size="11" /> {{ item.remark }}
              </p>
            </th>
            <td class="num">{{ formatLevel(item.tone_dbfs, 1) }}</td>
            <td class="num">{{ formatLevel(item.noise_dbfs, 1) }}</td>
            <td class="num">{{ formatLevel(item.hiss_db, 1) }}</td>
            <td class="num">
              {{ formatLevel(item.predicted_hiss_db, 1)
              }}<span class="soft small"> ({{ formatStep(item.off_db) }})</span>
            </td>
            <td>{{ item.rules }}</td>
          </tr>
        </tbody>
      </table>
      <PlotView
        label="Noise of each option in third octaves, against its tone"
        :data="curves"
        :names="compared.map((item) => `${item.place}: ${item.label}`)"
        unit="noise in third octaves, dB against the tone"
        x-unit="Hz"
        :low="low"
        :high="high"
        :marks="MARKS"
        :height="190"
      />
    </template>
  </details>
</template>

<style scoped>
summary {
  padding: 0.4rem 0;
  cursor: pointer;
}
.given {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 0.8rem;
}
.acts {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  padding: 0.6rem 0;
}
</style>
