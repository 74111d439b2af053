<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { LineUpStep } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'
import SeverityMark from '@/ui/SeverityMark.vue'
import { formatMoment } from '@/format/time'

/** One place of the line-up: what to send, what must be read, and the three ways to say what was. */
const props = defineProps<{ step: LineUpStep }>()
const emit = defineEmits<{ read: [value: number]; file: [file: File]; simulate: []; earlier: [] }>()
/** Whether the sound of a file is kept beside what was measured in it. */
const keep = defineModel<boolean>('keep', { required: true })
const job = useJob()
const typed = ref<number | ''>('')
watch(
  () => props.step.track,
  () => (typed.value = ''),
)
const FROM = {
  meter: 'read from its meter',
  recording: 'measured in a recording',
  simulation: 'in the simulation',
  earlier: 'as found in another job',
} as const

const measured = computed(() => props.step.knobs.filter(({ measured }) => measured !== null))
const meterWords = ({ reads_high_db: by, within_db: within }: NonNullable<LineUpStep['meter']>) =>
  `${formatLevel(Math.abs(by), 1)} dB too ${by < 0 ? 'low' : 'high'}, ±${formatLevel(within, 1)}`

function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = '' // the same file can be sent again
  if (file) emit('file', file)
}
</script>

<template>
  <section class="step" aria-label="Next to line up">
    <div class="act">
      <h3>{{ step.label }}</h3>
      <p v-if="!step.warning" class="must">
        Send 1 kHz at <strong>{{ formatLevel(step.sent_dbfs) }} dBFS</strong> from {{ step.sender_label }}.
        Its meter should read <strong>{{ formatLevel(step.meter_shows_dbfs, 1) }} dBFS</strong
        ><span class="soft"> ±{{ formatLevel(step.within_db, 1) }}</span
        >.
      </p>
      <p v-if="step.how" class="small">{{ step.how }}</p>
      <p v-if="step.meter" class="small">
        Its meter reads {{ meterWords(step.meter) }}; the file must hold
        {{ formatLevel(step.shows_dbfs, 1) }} dBFS.
        <Button
          v-if="step.meter.drop.length"
          text
          size="small"
          class="no-print"
          :disabled="job.readOnly"
          @click="job.edit(step.meter.drop)"
          >Clear meter correction</Button
        >
      </p>
      <p v-for="knob in measured" :key="knob.control" class="small">
        {{ knob.label }}: measured {{ formatMoment(knob.measured!) }}.
        <Button text size="small" class="no-print" :disabled="job.readOnly" @click="job.edit(knob.drop)"
          >Back to its marks</Button
        >
      </p>
      <p v-if="step.warning" class="is-stop">
        <SeverityMark severity="stop" :size="12" /> {{ step.warning }}
      </p>
      <p v-if="step.found && step.state === 'off'" class="found is-caution">
        <SeverityMark severity="caution" :size="12" /> Read {{ formatLevel(step.found.read_dbfs, 1) }}, wanted
        {{ formatLevel(step.shows_dbfs, 1) }} dBFS: {{ formatLevel(Math.abs(step.found.off_db ?? 0), 1) }} dB
        too {{ (step.found.off_db ?? 0) < 0 ? 'low' : 'hot' }}, not lined up. Look in this order:
        {{ step.look_at }}.
      </p>
      <p v-else-if="step.found" class="found">
        <template v-if="step.state === 'stale'">
          <SeverityMark severity="caution" :size="12" /> Something on the way was changed since. Line it up
          again. </template
        >{{ formatMoment(step.found.when) }}: {{ formatLevel(step.found.read_dbfs, 1) }} dBFS,
        {{ FROM[step.found.read_from]
        }}<template v-if="step.found.off_db !== null"
          >, {{ formatLevel(Math.abs(step.found.off_db), 1) }} dB
          {{ step.found.off_db < 0 ? 'below' : 'above' }} what the figures said</template
        >.
      </p>
      <p v-if="step.state === 'earlier'" class="is-note">Verify it by tone before the first take.</p>
      <div v-if="step.earlier" class="earlier">
        <p>
          This pair was lined up before ({{ step.earlier.job }}, {{ formatMoment(step.earlier.when) }}):
          {{ formatLevel(step.earlier.sent_dbfs) }} dBFS sent,
          {{ formatLevel(step.earlier.read_dbfs, 1) }} read,
          {{ formatLevel(Math.abs(step.earlier.off_db), 1) }} dB
          {{ step.earlier.off_db < 0 ? 'below' : 'above' }} the figures<template
            v-if="step.earlier.settings.length"
            >, with {{ step.earlier.settings.join(', ') }}</template
          >.
        </p>
        <Button size="small" outlined class="no-print" :disabled="job.readOnly" @click="emit('earlier')"
          >Apply earlier settings, to verify</Button
        >
      </div>
      <p v-if="step.like" class="found">
        Not read yet: the reading of {{ step.like }} is used here too (same socket, same knob).
      </p>
      <p v-if="step.alike && step.state === 'open'" class="turn soft">
        To read the same on both meters, {{ formatLevel(step.sent_dbfs) }} dBFS: {{ step.alike.words }}.
        <Button size="small" outlined :disabled="job.readOnly" @click="job.edit(step.alike.edits)"
          >Line up for equal meters</Button
        >
      </p>
      <p v-if="step.turn" class="turn">
        To bring it where it was wanted: {{ step.turn.words }}.
        <Button size="small" outlined :disabled="job.readOnly" @click="job.edit(step.turn.edits)"
          >Apply</Button
        >
      </p>
      <div class="ways no-print">
        <form @submit.prevent="typed !== '' && emit('read', typed)">
          <label class="field"
            ><span>Its meter shows, dBFS</span
            ><input
              v-model.number="typed"
              type="number"
              min="-120"
              max="24"
              step="0.1"
              :disabled="job.readOnly"
          /></label>
          <Button type="submit" size="small" outlined :disabled="typed === '' || job.readOnly"
            >Save reading</Button
          >
        </form>
        <label class="field"
          ><span>Or measure what it recorded: drop it here</span
          ><input type="file" accept="audio/*,video/*,.wav,.mov,.mp4,.mxf" @change="chosen"
        /></label>
      </div>
      <p class="more no-print">
        <label class="small"
          ><input v-model="keep" type="checkbox" /> Keep the recording too, on this machine</label
        >
        <Button size="small" text @click="emit('simulate')">Measure it in the simulation</Button>
      </p>
      <p v-if="step.found" class="no-print">
        <Button text size="small" :disabled="job.readOnly" @click="job.edit(step.drop)"
          >Delete reading</Button
        >
      </p>
    </div>
    <slot />
  </section>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 21rem;
  gap: 0.5rem 2rem;
  align-items: start;
  padding: 0.8rem 1rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.act {
  display: grid;
  gap: 0.5rem;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.5rem;
  align-items: center;
}
.must {
  font-size: 1.05rem;
}
.earlier {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
  padding: 0.5rem 0.7rem;
  border-left: 3px solid var(--pin);
}
.turn {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem 1.5rem;
  align-items: end;
}
.ways .field:not(form .field) {
  width: 19rem;
}
form {
  display: flex;
  gap: 0.6rem;
  align-items: end;
}
form input {
  width: 9rem;
}
@media (width < 1000px) {
  .step {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
