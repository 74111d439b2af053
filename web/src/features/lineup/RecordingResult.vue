<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import { addresses } from '@/api/addresses'
import type { LineUpStep, Measurement, Recording } from '@/api/client'
import { formatLevel, plainNumber } from '@/format/levels'
import { useJob } from '@/stores/job'
import PlotView from '@/ui/PlotView.vue'
import SoundPlayer from '@/ui/SoundPlayer.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import KnobLaw from './KnobLaw.vue'
import MeterForm from './MeterForm.vue'
import StepTable from './StepTable.vue'

/** What was found in a recording: what it means first, then the wave and the figures; a tone can be taken over. */
const props = defineProps<{
  recording: Recording
  result: Measurement
  step: LineUpStep | undefined
}>()
const emit = defineEmits<{
  take: [read: number, from: 'recording' | 'simulation']
  law: [device: string, control: string, scale: [number, number] | null]
  meter: [shown: (number | null)[]]
}>()
const job = useJob()
const tones = computed(() =>
  props.result.channels.flatMap(({ index, tone, clipped_count, flat_tops }) =>
    tone ? [{ index, level: tone.level_dbfs, cut: clipped_count > 0 || flat_tops }] : [],
  ),
)
/** What a meter may have been read beside: the steps, else the tones. */
const beside = computed(() =>
  props.result.steps
    ? props.result.steps.steps.map(({ setting, level_dbfs }) => ({
        name: `at ${plainNumber(setting)}`,
        level: level_dbfs,
      }))
    : tones.value.map(({ index, level }) => ({ name: `channel ${index}`, level })),
)
const wave = (channel: number): readonly (readonly number[])[] => {
  const { highest, lowest, stretch_s } = props.result.overview
  const high = highest[channel] ?? []
  return [high.map((_, at) => at * stretch_s), high, lowest[channel] ?? []]
}
const format = computed(() => {
  const { duration_s, sample_rate, bits, encoding } = props.result
  const kind = bits ? `${bits} bit ${encoding}` : encoding
  return `${duration_s.toFixed(1)} s, ${sample_rate / 1000} kHz, ${kind}`
})
const most = computed(() =>
  Math.max(
    0.02,
    ...props.result.overview.highest.flat(),
    ...props.result.overview.lowest.flat().map(Math.abs),
  ),
)
</script>

<template>
  <section class="result">
    <header>
      <h3>{{ recording.name }}</h3>
      <span class="soft small">{{ format }}</span>
    </header>
    <p v-if="result.truncated" class="is-caution">
      <SeverityMark severity="caution" :size="12" /> The file is cut short: measured as far as it goes.
    </p>
    <p v-for="item in result.findings" :key="item.text" :class="`is-${item.severity}`" class="told">
      <SeverityMark :severity="item.severity" :size="12" /> {{ item.text }}
    </p>
    <p v-if="!result.findings.length" class="told">No issues found by measuring.</p>
    <div v-if="step && tones.length && !result.steps" class="take no-print">
      <template v-for="tone in tones" :key="tone.index">
        <Button
          v-if="!tone.cut"
          size="small"
          :disabled="job.readOnly"
          @click="emit('take', tone.level, recording.asked.simulated ? 'simulation' : 'recording')"
          >Use {{ formatLevel(tone.level, 1) }} dBFS{{
            tones.length > 1 ? ` of channel ${tone.index}` : ''
          }}
          for {{ step.label }}</Button
        >
        <span v-else>A tone that is cut off says nothing of the level: it is not taken over.</span>
      </template>
    </div>
    <StepTable v-if="result.steps" :steps="result.steps" :target="recording.asked.target_dbfs ?? null" />
    <KnobLaw
      v-if="step && result.steps"
      :key="`${recording.id} knob`"
      :recording="recording"
      :knobs="step.knobs"
      class="no-print"
      @take="(device, control, scale) => emit('law', device, control, scale)"
    />
    <MeterForm
      v-if="step && beside.length"
      :key="`${recording.id} meter`"
      :beside="beside"
      :shown="recording.asked.shown ?? []"
      :device="step.label"
      class="no-print"
      @take="(shown) => emit('meter', shown)"
    />
    <SoundPlayer
      v-if="recording.asked.keep && job.state"
      :src="addresses.recording(job.state.job, recording.id)"
      :name="recording.name"
      :label="recording.name"
      :quiet="0.25"
      ><span class="soft small">Set headphones low first; tone off the ears.</span></SoundPlayer
    >
    <PlotView
      v-for="channel in result.channels.slice(0, 2)"
      :key="channel.index"
      :label="`Waveform of channel ${channel.index}`"
      :data="wave(channel.index - 1)"
      :unit="`channel ${channel.index}, full scale 1`"
      x-unit="seconds"
      :low="-most"
      :high="most"
      :height="110"
    />
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col">channel</th>
          <th scope="col" class="num">peak</th>
          <th scope="col" class="num">true peak</th>
          <th scope="col" class="num">RMS</th>
          <th scope="col" class="num">noise</th>
          <th scope="col" class="num">noise (A)</th>
          <th scope="col">found</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="channel in result.channels" :key="channel.index">
          <th scope="row">{{ channel.index }}</th>
          <td class="num">{{ formatLevel(channel.peak_dbfs, 1) }}</td>
          <td class="num">{{ formatLevel(channel.true_peak_dbtp, 1) }}</td>
          <td class="num">{{ formatLevel(channel.rms_dbfs, 1) }}</td>
          <td class="num">{{ formatLevel(channel.noise_floor_dbfs, 1) }}</td>
          <td class="num">{{ formatLevel(channel.noise_floor_dbfs_a, 1) }}</td>
          <td class="soft">{{ channel.noise_words }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="pair in result.pairs" :key="pair.channels.join()" class="soft small">
      Channels {{ pair.channels.join(' and ') }}:
      {{ pair.polarity === 'unrelated' ? 'unrelated' : `${pair.polarity} polarity` }}, correlation
      {{ pair.correlation.toFixed(2).replace('-', '−')
      }}<template v-if="pair.bleed_db !== null">, bleed {{ formatLevel(pair.bleed_db, 1) }} dB</template
      ><template v-if="pair.delay_ms">, {{ formatLevel(pair.delay_ms, 1) }} ms apart</template>.
    </p>
  </section>
</template>

<style scoped>
.result {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: baseline;
}
h3 {
  overflow-wrap: anywhere;
}
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.told.is-note {
  color: var(--ink);
}
</style>
