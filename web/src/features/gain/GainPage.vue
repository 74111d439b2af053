<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import StepList from './StepList.vue'
import TracedTrack from './TracedTrack.vue'
import TrackChanges from './TrackChanges.vue'
import { useGainPlan } from './useGainPlan'

/** Where every knob of the job should stand, why, and the result; applied as one edit. */
const job = useJob()
const router = useRouter()
const { plan, pins, busy, cancel, problem, byDevice, pin, release, apply } = useGainPlan()
const edits = computed(() => plan.value?.steps.map(({ edit }) => edit) ?? [])
/** The track whose numbers are traced; one that has gone is traced no more. */
const wanted = ref('')
const traced = computed({
  get: () => (plan.value?.tracks.some(({ track }) => track === wanted.value) ? wanted.value : ''),
  set: (track) => (wanted.value = track),
})
const count = computed(() => plan.value?.steps.length ?? 0)
const things = (number: number, what: string) => `${number} ${what}${number === 1 ? '' : 's'}`
</script>

<template>
  <EmptyState
    v-if="plan && !plan.tracks.length"
    class="page"
    title="Nothing is recorded yet"
    text="A gain plan needs a source, a microphone at it and a cable to a track: founder at boom, 0.5 m; boom to bag 1, 7 m."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div v-else class="page">
    <header>
      <h2>Gain plan</h2>
      <p v-if="plan" role="status">
        <template v-if="count">
          {{ things(count, 'setting') }} to change, from the microphones on.
          <template v-if="plan.stops_before > plan.stops_left.length"
            >It fixes {{ things(plan.stops_before - plan.stops_left.length, 'fault') }}.</template
          >
        </template>
        <template v-else>Nothing to change: every knob stands where the plan would put it.</template>
      </p>
      <p v-else-if="busy" class="soft">Trying every knob…</p>
      <Button v-if="busy" text size="small" class="no-print" @click="cancel">Cancel</Button>
      <span class="do no-print">
        <Button v-if="pins.length" text size="small" @click="release"
          >Release {{ things(pins.length, 'knob') }}</Button
        >
        <Button v-if="count" :disabled="job.readOnly || busy" @click="apply">Apply all</Button>
      </span>
    </header>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <template v-if="plan">
      <StepList :devices="byDevice" :locked="job.readOnly" @pin="pin" />
      <section v-if="plan.stops_left.length" class="left">
        <h3>What no setting fixes</h3>
        <p v-for="finding in plan.stops_left" :key="finding.id">
          <SeverityMark severity="stop" /> <strong class="is-stop">{{ finding.title }}</strong>.
          {{ finding.text }}
        </p>
      </section>
      <section>
        <h3>What each track would hold, dBFS</h3>
        <TrackChanges :tracks="plan.tracks" :traced="traced" @trace="traced = $event" />
        <TracedTrack v-if="traced" :track="traced" :edits="edits" />
      </section>
      <p class="soft small">
        Turn an output down before you plug it in, then bring it up. Figures are typical ones unless measured:
        a test recording and headphones decide.
      </p>
    </template>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1.2rem;
  align-content: start;
  padding: 1rem 1.25rem 3rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: center;
}
h2 {
  font-size: 1.2rem;
}
h3 {
  margin-bottom: 0.3rem;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin-left: auto;
}
.left p {
  padding: 0.2rem 0;
}
</style>
