<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import { formatLevel } from '@/format/levels'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import ControlGroups from '@/ui/ControlGroups.vue'
import PlotView from '@/ui/PlotView.vue'
import SoundPlayer from '@/ui/SoundPlayer.vue'
import { PLAYS, useSimulation } from './useSimulation'

/** The plan as it is set now, simulated, to be heard and seen at every point of a chain. */
const props = defineProps<{ track?: string }>()
const job = useJob()
const router = useRouter()
const tracks = computed(
  () =>
    job.state?.devices.flatMap((device) =>
      device.tracks
        .filter(({ leads }) => leads.length)
        .map(({ id, bus_label }) => ({ id, label: `${device.label}, track ${bus_label}` })),
    ) ?? [],
)
const track = computed(() => props.track || tracks.value[0]?.id || '')
const { points, point, play, loose, seen, problem, sound } = useSimulation(track)
const leads = computed(() => points.value.filter(({ run }) => run))
const MARKS = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16000]
const spectrum = computed(() => {
  const bands = seen.value?.bands ?? []
  return [bands.map(({ hertz }) => hertz), bands.map(({ level }) => level)]
})
const top = computed(() => {
  const levels = spectrum.value[1]?.filter((level): level is number => level !== null) ?? []
  return levels.length ? Math.ceil((Math.max(...levels) + 5) / 10) * 10 : 0
})
const wave = computed(() => {
  const { highest = [], lowest = [], stretch_s = 1 } = seen.value ?? {}
  return [highest.map((_, at) => at * stretch_s), highest, lowest]
})
const most = computed(() => Math.max(0.001, ...(wave.value[1] ?? []), ...(wave.value[2] ?? []).map(Math.abs)))
</script>

<template>
  <EmptyState
    v-if="!tracks.length"
    class="empty"
    title="Nothing to hear yet"
    text="The simulation plays what a cable brings to a track: founder at boom, 0.5 m; boom to bag 1, 7 m."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div v-else class="page">
    <header>
      <h2>Simulation</h2>
      <label
        >to
        <select
          class="plain-input"
          aria-label="Track"
          :value="track"
          @change="
            router.replace({
              name: 'simulation',
              params: { track: ($event.target as HTMLSelectElement).value },
            })
          "
        >
          <option v-for="item in tracks" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select></label
      >
      <label
        >sources
        <select v-model="play" class="plain-input" aria-label="What the sources do">
          <option v-for="item in PLAYS" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select></label
      >
      <label
        >loose plug
        <select v-model="loose" class="plain-input" aria-label="Cable with a loose plug">
          <option value="">none</option>
          <option v-for="item in leads" :key="item.run" :value="item.run">{{ item.label }}</option>
        </select></label
      >
      <RouterLink :to="{ name: 'line-up', params: { track } }">Line it up</RouterLink>
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <nav aria-label="Points of the chain">
      <ol>
        <li v-for="item in points" :key="item.number">
          <button
            type="button"
            :class="{ here: item.number === point }"
            :aria-current="item.number === point ? 'step' : undefined"
            @click="point = item.number"
          >
            {{ item.label }} <span class="soft small">{{ item.unit }}</span>
          </button>
        </li>
      </ol>
    </nav>
    <section v-if="seen" class="seen">
      <p class="meters">
        <span
          >average <strong>{{ formatLevel(seen.level, 1) }}</strong> {{ seen.unit }}</span
        >
        <span
          >peak <strong>{{ formatLevel(seen.peak, 1) }}</strong></span
        >
        <span v-if="seen.ceiling !== null"
          >clips at <strong>{{ formatLevel(seen.ceiling, 1) }}</strong></span
        >
        <span v-if="seen.meter_shows_dbfs !== null"
          >its own meter shows <strong>{{ formatLevel(seen.meter_shows_dbfs, 1) }}</strong></span
        >
        <strong v-if="seen.clips" class="is-stop">it clips here</strong>
      </p>
      <p v-if="seen.clap">
        The clap is heard at {{ seen.clap.heard_s.toFixed(3) }} s, and its picture is seen at
        {{ seen.clap.seen_s.toFixed(3) }} s: the sound is
        <strong
          >{{ Math.abs(seen.clap.early_ms).toFixed(0) }} ms
          {{ seen.clap.early_ms < 0 ? 'late' : 'early' }}</strong
        >.
      </p>
      <SoundPlayer :src="sound" name="simulation.wav" label="What is heard at this point" :quiet="0.25">
        <span class="soft small">Set headphones low first; tone off the ears.</span>
      </SoundPlayer>
      <div class="plots">
        <PlotView
          label="Waveform"
          :data="wave"
          unit="waveform"
          x-unit="seconds"
          :low="-most"
          :high="most"
          :height="210"
        />
        <PlotView
          label="Spectrum in third octaves"
          :data="spectrum"
          :unit="`${seen.unit} in third octaves`"
          x-unit="Hz"
          :low="top - 80"
          :high="top"
          :marks="MARKS"
          :height="210"
        />
      </div>
    </section>
    <ControlGroups
      class="controls"
      :rungs="points"
      :locked="job.readOnly"
      @set="
        (control, value) =>
          job.edit([{ kind: 'set-control', device: control.device, control: control.id, value }])
      "
    />
    <p class="soft small foot">
      Simulated devices, set as the job is now. Each differs from its class by what its figures allow, as real
      ones do: lining it up finds by how much. It replaces no test recording.
    </p>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
  align-content: start;
  padding: 1rem 1.25rem 3rem;
}
.empty {
  margin: 0 1.25rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: center;
}
header select {
  width: auto;
  max-width: 16rem;
}
h2 {
  font-size: 1.2rem;
}
nav ol {
  display: flex;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--line);
}
li + li::before {
  align-self: center;
  color: var(--ink-soft);
  content: '›';
}
li {
  display: flex;
}
nav button {
  min-height: 2.75rem;
  padding: 0.3rem 0.7rem;
  background: none;
  border: 0;
  border-bottom: 4px solid transparent;
  cursor: pointer;
}
nav button:hover,
nav button.here {
  background: var(--sheet);
  border-bottom-color: var(--pin);
}
.plots {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 26rem), 1fr));
  gap: 0.6rem 1.5rem;
}
.seen {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
.meters {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.4rem;
  font-size: 1.1rem;
}
</style>
