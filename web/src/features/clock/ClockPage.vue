<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'

import type { Fix } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import FindingsPane from '@/ui/FindingsPane.vue'
import ClockTree from './ClockTree.vue'
import DayForm from './DayForm.vue'
import JamForm from './JamForm.vue'
import LateScreen from './LateScreen.vue'
import PairTable from './PairTable.vue'
import { treeRows } from './clockShape'
import { useClock } from './useClock'

/** Timecode: sources, drift over the day, sync methods in post, picture delays. */
const job = useJob()
const router = useRouter()
const { clock, problem } = useClock()
const chosen = ref('')
const timecodeDevice = computed(() =>
  clock.value?.timecode_devices.find(({ device }) => device === chosen.value),
)
const findings = computed(() => job.findings.filter(({ station }) => station === 'clock'))

function step(by: number) {
  const ids = clock.value ? treeRows(clock.value).map((row) => row.timecodeDevice.device) : []
  chosen.value = ids[Math.min(Math.max(ids.indexOf(chosen.value) + by, 0), ids.length - 1)] ?? ''
}
useKeys({ j: () => step(1), k: () => step(-1), Escape: () => (chosen.value = '') })
</script>

<template>
  <EmptyState
    v-if="clock && !clock.timecode_devices.length"
    class="empty"
    title="No timecode devices yet"
    text="Cameras, recorders and timecode generators stand here once the job has them: add timecode generator, add mirrorless camera."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div v-else class="clock">
    <div class="page">
      <header>
        <h2>Timecode</h2>
        <p v-if="clock">{{ clock.rate }} frames a second</p>
        <DayForm v-if="clock" :clock="clock" />
        <RouterLink class="files no-print" :to="{ name: 'sync' }">Sync files</RouterLink>
      </header>
      <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
      <template v-if="clock">
        <ClockTree :clock="clock" :chosen="chosen" @choose="chosen = chosen === $event ? '' : $event" />
        <JamForm v-if="timecodeDevice" :clock="clock" :timecode-device="timecodeDevice" />
        <PairTable v-if="clock.pairs.length" :pairs="clock.pairs" />
        <LateScreen v-for="item in clock.screens" :key="item.device" :late="item" />
      </template>
      <p class="soft small">
        Clocks are taken as bad as their class allows, unless they were measured. Read a label from both after
        an hour, and clap: a plan replaces neither.
      </p>
    </div>
    <FindingsPane
      :findings="findings"
      title="Timecode findings"
      :narrowed="false"
      @apply="(fix: Fix) => job.edit(fix.edits)"
    />
  </div>
</template>

<style scoped>
.clock {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  min-height: 100%;
}
.page {
  display: grid;
  gap: 1.2rem;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
  padding: 1rem 1.25rem 3rem;
}
.empty {
  margin: 0 1.25rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  align-items: center;
}
.files {
  margin-left: auto;
}
h2 {
  font-size: 1.2rem;
}
@media (width < 1000px) {
  .clock {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .clock {
    display: block;
  }
}
</style>
