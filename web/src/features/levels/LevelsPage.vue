<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { Control, Ladder, MatchingOption } from '@/api/client'
import { useCatalogue } from '@/stores/catalogue'
import { useKeys } from '@/composables/useKeys'
import { useAdvice } from '@/stores/advice'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import CompareWith from './CompareWith.vue'
import DoubtList from './DoubtList.vue'
import HeardFile from './HeardFile.vue'
import LadderChart from '@/ui/LadderChart.vue'
import ControlGroups from '@/ui/ControlGroups.vue'
import NoiseList from './NoiseList.vue'
import RungAccount from '@/ui/RungAccount.vue'
import SafetyList from './SafetyList.vue'
import TrackFigures from './TrackFigures.vue'
import OptionsTable from './OptionsTable.vue'
import { useCompared } from './useCompared'
import { useLadder } from './useLadder'

const props = defineProps<{ track?: string }>()
const job = useJob()
const advice = useAdvice()
const router = useRouter()
const through = ref('')

const blocks = computed(() => job.state?.devices.filter((device) => device.tracks.length) ?? [])
const tracks = computed(() => blocks.value.flatMap((block) => block.tracks))
/** The wanted track, else the first that a stop is about, else the first. */
const current = computed(() => {
  const known = tracks.value.find(({ id }) => id === props.track)
  return (known ?? tracks.value.find(({ severity }) => severity === 'stop') ?? tracks.value[0])?.id ?? ''
})
const { ladder, options, boxes, problem, preview, askForBoxes } = useLadder(current, through)
const { compared, other, isOtherTrack, hold } = useCompared(current, ladder, options)
const catalogue = useCatalogue()
onMounted(() => catalogue.load())
watch(current, () => (through.value = ''))

/** Whose level is accounted for: what is pointed at, else where it clips, else the track. */
const chosen = ref<number | null>(null)
watch([current, through], () => (chosen.value = null))
const pointed = computed(() => {
  const rungs = ladder.value?.rungs ?? []
  const clips = rungs.findIndex(({ over_db }) => over_db)
  return Math.min(chosen.value ?? (clips < 0 ? Infinity : clips), rungs.length - 1)
})

const setRole = (at: Ladder, role: string) =>
  job.edit([{ kind: 'set-role', device: at.device, bus: at.bus, role: role as Ladder['role'] }])
const findings = computed(() =>
  job.findings.filter((finding) => finding.track === current.value || finding.run === ladder.value?.run),
)

/** The gravest finding of this track answers to `a`. */
const worst = computed(() => findings.value[0])
watch(worst, (finding) => finding && (job.pointed = finding.id), { immediate: true })

const nameOf = (track: string) => {
  const block = blocks.value.find((item) => item.tracks.some(({ id }) => id === track))
  return `${block?.label}, track ${block?.tracks.find(({ id }) => id === track)?.bus_label}`
}
const show = (track: string) => router.replace({ name: 'levels', params: { track } })
const setting = (control: Control, value: string | number | boolean) => ({
  kind: 'set-control' as const,
  device: control.device,
  control: control.id,
  value,
})

function step(by: number) {
  const ids = tracks.value.map(({ id }) => id)
  const next = ids[Math.min(Math.max(ids.indexOf(current.value) + by, 0), ids.length - 1)]
  if (next) void show(next)
}
useKeys({ j: () => step(1), k: () => step(-1) })
</script>

<template>
  <EmptyState
    v-if="!tracks.length"
    class="page"
    title="No track has a plug yet"
    text="The ladder shows one track from source to file. Type a connection first: boom to bag 1, 7 m."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div v-else class="page">
    <header>
      <label>
        <span class="visually-hidden">Track</span>
        <select :value="current" @change="show(($event.target as HTMLSelectElement).value)">
          <optgroup v-for="block in blocks" :key="block.id" :label="block.label">
            <option v-for="item in block.tracks" :key="item.id" :value="item.id">
              {{ block.label }}, track {{ item.bus_label
              }}{{ item.severity === 'stop' ? ' – won’t work' : '' }}
            </option>
          </optgroup>
        </select>
      </label>
      <span v-if="ladder" class="soft">from {{ ladder.origin }}</span>
      <label v-if="ladder && ladder.branches.length > 1" class="soft">
        via
        <select v-model="through">
          <option value="">the loudest</option>
          <option v-for="branch in ladder.branches" :key="branch.device" :value="branch.device">
            {{ branch.label }}
          </option>
        </select>
      </label>
      <label v-if="ladder" class="soft no-print">
        for
        <select
          aria-label="What the track is kept for"
          :value="ladder.role"
          :disabled="job.readOnly"
          @change="setRole(ladder, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="role in catalogue.value?.roles" :key="role">{{ role }}</option>
        </select>
      </label>
    </header>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <template v-if="ladder">
      <TrackFigures :ladder="ladder" />
      <p v-if="worst" class="worst no-print">
        <SeverityMark :severity="worst.severity" />
        <strong :class="`is-${worst.severity}`">{{ worst.title }}</strong>
        <Button
          v-for="(fix, index) in advice.of(worst.id).slice(0, 2)"
          :key="fix.label"
          :outlined="index > 0"
          size="small"
          :disabled="job.readOnly"
          @click="job.edit(fix.edits)"
        >
          {{ fix.label }} <kbd v-if="index === 0">a</kbd>
        </Button>
      </p>
      <LadderChart
        :ladder="ladder"
        :other="isOtherTrack ? undefined : (other ?? undefined)"
        :beside="isOtherTrack ? other?.ladder : undefined"
        :pointed="pointed"
        @point="chosen = $event"
      />
      <RungAccount :ladder="ladder" :pointed="pointed" />
      <CompareWith
        v-model="compared"
        :ladder="ladder"
        :other="other"
        :options="options"
        :tracks="tracks.map(({ id }) => ({ id, label: nameOf(id) }))"
        @hold="hold"
      />
      <LadderChart v-if="isOtherTrack && other" :ladder="other.ladder" :beside="ladder" />
      <ControlGroups
        :rungs="ladder.rungs"
        :locked="job.readOnly"
        @moving="(control: Control, value: number) => preview([setting(control, value)])"
        @set="(control: Control, value: string | number | boolean) => job.edit([setting(control, value)])"
      />
      <OptionsTable
        class="options"
        :options="[...options, ...(boxes ?? [])]"
        :more="boxes === null && ladder.run !== ''"
        :run="ladder.run"
        :locked="job.readOnly"
        @apply="(option: MatchingOption) => job.edit(option.edits)"
        @more="askForBoxes"
      />
      <div class="tables">
        <NoiseList :noises="ladder.noises" />
        <DoubtList :doubts="ladder.doubts" :first="ladder.first_measurement" :track="current" />
        <SafetyList :safeties="ladder.safeties" :advice="ladder.safety_advice" />
        <HeardFile v-if="ladder.rungs[0]?.begins" :track="current" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  padding: 0.9rem 1.25rem 3rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}
header label {
  min-width: 0;
}
header select {
  max-width: 100%;
  min-height: 2.2rem;
  padding: 0.15rem 0.4rem;
  background: var(--chalk);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
header label:first-child select {
  font-size: 1.1rem;
  font-weight: 700;
}
.worst {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding: 0.2rem 0 0.4rem;
}
.options {
  margin-top: 1.2rem;
}
.tables {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 30rem), 1fr));
  gap: 1.4rem 2.4rem;
  margin-top: 1.4rem;
}
</style>
