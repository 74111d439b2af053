<script setup lang="ts">
import Button from 'primevue/button'
import { toRef } from 'vue'

import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'
import { useHeard } from './useHeard'

/** A recording of this track, read back to how loud its source and the place really are. */
const props = defineProps<{ track: string }>()
const job = useJob()
const { heard, problem, busy, channel, read } = useHeard(toRef(props, 'track'))
</script>

<template>
  <section class="no-print">
    <h2>From a recording of this track</h2>
    <div class="asked">
      <label class="field"
        ><span>WAV, with pauses</span
        ><input type="file" accept="audio/*,.wav" :disabled="busy" @change="read"
      /></label>
      <label class="field channel"
        ><span>Channel</span><input v-model.number="channel" type="number" min="1" max="64"
      /></label>
    </div>
    <p v-if="busy" role="status">Reading it…</p>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <template v-if="heard">
      <p>
        {{ heard.source }}: {{ formatLevel(heard.quiet_db_spl) }} quiet,
        <strong>{{ formatLevel(heard.average_db_spl) }}</strong> average,
        {{ formatLevel(heard.peak_db_spl) }} peak dB SPL at 1 m<template v-if="heard.room_noise_db_a !== null"
          >; the place {{ formatLevel(heard.room_noise_db_a) }} dB(A)</template
        >.
      </p>
      <Button outlined size="small" :disabled="job.readOnly" @click="job.edit(heard.edits)"
        >Use for {{ heard.source }}</Button
      >
      <Button
        v-if="heard.room_edits.length"
        outlined
        size="small"
        :disabled="job.readOnly"
        @click="job.edit(heard.room_edits)"
        >Use for the room noise</Button
      >
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
}
h2 {
  font-size: 1.05rem;
}
.asked {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 4.5rem;
  gap: 0.6rem;
}
</style>
