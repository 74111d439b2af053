<script setup lang="ts">
import Button from 'primevue/button'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import type { AskedOfRecording } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import CompareOptions from './CompareOptions.vue'
import OpenStep from './OpenStep.vue'
import RecordingList from './RecordingList.vue'
import RecordingResult from './RecordingResult.vue'
import StepDrop from './StepDrop.vue'
import StepList from './StepList.vue'
import TonePlayer from './TonePlayer.vue'
import VoiceList from './VoiceList.vue'
import { useLineUp } from './useLineUp'
import { useRecordings } from './useRecordings'

/** Line-up: send tone, read it at the far end, and let what was read take the place of what was thought. */
const props = defineProps<{ track?: string }>()
const job = useJob()
const router = useRouter()
const { steps, voices, open, problem, take, takeEarlier } = useLineUp(computed(() => props.track ?? ''))
const files = useRecordings()
const { recordings, opened, result, sending } = files
const over = ref(false)
const keep = ref(false)
/** What goes with a file: the track that it was made on, and whether its sound is kept. */
const asked = (more: AskedOfRecording = {}): AskedOfRecording => ({
  track: open.value?.track ?? '',
  keep: keep.value,
  ...more,
})
const done = computed(() => steps.value?.filter(({ state }) => state === 'done').length ?? 0)
/** The step that the opened recording was made for; the open one where it was made for none. */
const meant = computed(
  () => steps.value?.find(({ track }) => track === opened.value?.asked.track) ?? open.value,
)
const runName = computed(() => {
  const number = job.state?.plan.runs?.find(({ id }) => id === open.value?.run)?.number
  return number === undefined ? 'this cable' : `cable ${number}`
})
const act = useTemplateRef<HTMLElement>('act')
/** What is to be done stands on top: a place chosen in the list brings it back into view. */
async function choose(track: string) {
  await router.replace({ name: 'line-up', params: { track } })
  await nextTick()
  act.value?.scrollIntoView({ block: 'nearest' })
}

/** What was taken stays open: what is to be turned follows from it. */
async function takeFor(track: string, read: number, from: 'meter' | 'recording' | 'simulation') {
  await choose(track)
  await take(track, read, from)
}

function dropped(event: DragEvent) {
  over.value = false
  for (const file of event.dataTransfer?.files ?? []) void files.send(file, asked())
}
</script>

<template>
  <EmptyState
    v-if="steps && !steps.length && !voices.length && !recordings.length"
    class="empty"
    title="Nothing to line up yet"
    text="A line-up needs a recorder or mixer that sends tone, and a cable from its output into a camera."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div
    v-else
    class="page"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <header>
      <h2>Line-up</h2>
      <p v-if="steps" role="status">{{ done }} of {{ steps.length }} lined up.</p>
      <RouterLink class="no-print" :to="{ name: 'simulation', params: { track: open?.track ?? '' } }"
        >Listen to the plan: simulation</RouterLink
      >
      <RouterLink class="no-print" :to="{ name: 'gear-tests', params: { device: open?.device ?? '' } }"
        >Know your gear</RouterLink
      >
    </header>
    <p v-if="problem || files.problem.value" class="is-stop" role="alert">
      {{ problem || files.problem.value }}
    </p>
    <div v-if="open" ref="act">
      <OpenStep
        v-model:keep="keep"
        :step="open"
        @read="(value) => takeFor(open!.track, value, 'meter')"
        @file="(file) => files.send(file, asked())"
        @simulate="files.simulate(open!.track)"
        @earlier="takeEarlier(open!.track)"
      >
        <TonePlayer
          v-if="job.state"
          :job="job.state.job"
          :level="formatLevel(job.state.plan.defaults?.alignment_dbfs)"
        />
      </OpenStep>
    </div>
    <RecordingResult
      v-if="opened && result"
      :recording="opened"
      :result="result"
      :step="meant"
      @take="(read, from) => meant && takeFor(meant.track, read, from)"
      @law="(device, control, scale) => files.takeLaw(opened!.id, device, control, scale)"
      @meter="(shown) => meant && files.takeMeter(opened!.id, meant.track, shown)"
    />
    <RecordingList
      :recordings="recordings"
      :opened="opened?.id ?? ''"
      :sending="sending"
      @open="files.open"
      @cancel="files.cancel"
      @remove="files.remove"
    />
    <div class="lists">
      <StepList v-if="steps?.length" :steps="steps" :open="open?.track ?? ''" @choose="choose" />
      <VoiceList :voices="voices" />
    </div>
    <StepDrop
      :knobs="open?.knobs ?? []"
      @send="(file, settings, target) => files.send(file, asked({ settings, target_dbfs: target }))"
      @simulate="
        (knob, positions, target) => open && files.simulateSteps(open.track, knob, positions, target)
      "
    />
    <CompareOptions
      v-if="open?.run"
      :key="open.run"
      :run="open.run"
      :name="runName"
      :recordings="recordings"
      @recorded="files.look"
    />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
  align-content: start;
  min-height: 100%;
  padding: 1rem 1.25rem 3rem;
}
.page.over {
  outline: 3px dashed var(--pin);
  outline-offset: -6px;
}
.empty {
  margin: 0 1.25rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: baseline;
}
h2 {
  font-size: 1.2rem;
}
.lists {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 28rem), 1fr));
  gap: 1rem 1.8rem;
  align-items: start;
}
</style>
