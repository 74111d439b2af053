<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, toRef, watch } from 'vue'

import { addresses } from '@/api/addresses'
import type { Sync } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { plainNumber } from '@/format/levels'
import { lasting } from '@/format/time'
import PlotView from '@/ui/PlotView.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import SoundPlayer from '@/ui/SoundPlayer.vue'
import { useWaves } from './useWaves'

/** A camera file over its recorder file: seen, heard on either side, moved by frames and samples. */
const props = defineProps<{ job: string; clip: Sync['clips'][number]; files: Sync['files'] }>()
const emit = defineEmits<{ nudge: [samples: number]; restore: [] }>()
const SPANS = [60, 10, 1, 0.1, 0.01]
const span = ref(10)
const at = ref(0)

const file = (id: string) => props.files.find((item) => item.id === id)
const other = computed(() => file(props.clip.other))
const reference = computed(() => file(props.clip.reference))
const hasSound = computed(() => Boolean(other.value?.rate_hz && reference.value?.rate_hz))
const rounded = (seconds: number) => Math.round(seconds * 1e4) / 1e4
/** Where both begin to be there. */
const first = computed(() => Math.max(props.clip.offset_s, 0))
watch(
  () => props.clip.other,
  () => (at.value = rounded(first.value)),
  { immediate: true },
)
const { waves, problem, heard } = useWaves(toRef(props, 'job'), toRef(props, 'clip'), at, span, hasSound)

const data = computed(() => {
  const found = waves.value
  if (!found) return []
  const step = found.span_s / found.reference.low.length
  return [
    found.reference.low.map((_, index) => Number((found.at_s + index * step).toFixed(6))),
    found.reference.high,
    found.reference.low,
    found.other.high,
    found.other.low,
  ]
})
const frame = computed(() => props.clip.samples_per_frame)
const move = (samples: number) => emit('nudge', samples)
const looked = (by: number) => (at.value = rounded(at.value + by * span.value))
/** Another stretch keeps its middle, so that one looks closer at the same place. */
function closer(wanted: number) {
  at.value = rounded(at.value + (span.value - wanted) / 2)
  span.value = wanted
}
useKeys({
  '[': () => move(-frame.value),
  ']': () => move(frame.value),
  ',': () => move(-1),
  '.': () => move(1),
})

const surely = computed(() =>
  props.clip.by_hand ? 'by hand' : `by ${props.clip.method}, confidence ${props.clip.confidence.toFixed(2)}`,
)
</script>

<template>
  <section class="clip" :aria-label="`${other?.name} over ${reference?.name}`">
    <h3>{{ other?.name }} over {{ reference?.name }}</h3>
    <p>
      begins <strong>{{ clip.offset_s.toFixed(6).replace('-', '−') }} s</strong> after it,
      {{ clip.offset_frames.toFixed(2).replace('-', '−') }} frames; {{ surely
      }}<template v-if="clip.drift_ppm !== null"
        >; its clock runs {{ plainNumber(Math.abs(clip.drift_ppm)) }} ppm
        {{ clip.drift_ppm < 0 ? 'slow' : 'fast' }}</template
      ><template v-if="clip.polarity < 0">; opposite polarity</template
      ><template v-if="clip.nudge_samples">; moved by {{ plainNumber(clip.nudge_samples) }} samples</template>
    </p>
    <p v-if="clip.timecode_s !== null" class="is-caution">
      <SeverityMark severity="caution" :size="11" /> Its timecode says
      {{ clip.timecode_s.toFixed(3).replace('-', '−') }} s: somebody forgot to jam it, or to jam it again.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <template v-if="hasSound">
      <PlotView
        v-if="waves"
        :label="`${reference?.name} and ${other?.name} over each other, ${span} s from ${lasting(at)}`"
        :data="data"
        :names="[reference?.name ?? '', other?.name ?? '']"
        unit="each at its loudest"
        x-unit="seconds of the recorder file"
        :low="-1"
        :high="1"
        :height="170"
        bands
      />
      <div class="tools no-print">
        <span role="group" aria-label="Stretch">
          <Button
            v-for="item in SPANS"
            :key="item"
            size="small"
            :outlined="item !== span"
            :aria-pressed="item === span"
            @click="closer(item)"
            >{{ item }} s</Button
          >
        </span>
        <Button size="small" text aria-label="Earlier" @click="looked(-0.5)">◀ earlier</Button>
        <label
          >from
          <input
            v-model.lazy.number="at"
            class="plain-input num"
            type="number"
            step="any"
            aria-label="from, seconds"
          />
          s</label
        >
        <Button size="small" text aria-label="Later" @click="looked(0.5)">later ▶</Button>
      </div>
    </template>
    <p v-else class="soft">One of them has no sound: look at its picture, and place it by a clap.</p>
    <div class="tools no-print">
      <span role="group" aria-label="Move">
        <Button size="small" outlined data-repeats @click="move(-frame)">−1 frame</Button>
        <Button size="small" outlined data-repeats @click="move(-1)">−1 sample</Button>
        <Button size="small" outlined data-repeats @click="move(1)">+1 sample</Button>
        <Button size="small" outlined data-repeats @click="move(frame)">+1 frame</Button>
      </span>
      <Button v-if="clip.nudge_samples" size="small" text @click="emit('restore')">Back to the match</Button>
      <template v-if="hasSound">
        <a :href="addresses.syncedCopy(job, clip.other, false)" download>Synced copy</a>
        <a v-if="clip.drift_ppm !== null" :href="addresses.syncedCopy(job, clip.other, true)" download
          >Synced copy without drift</a
        >
      </template>
    </div>
    <SoundPlayer
      v-if="hasSound"
      :src="heard"
      name="left-and-right.wav"
      label="Recorder left, camera right"
      :quiet="0.3"
      ><span class="soft small"
        >recorder left, camera right: where they fit it is heard in the middle. Set headphones low
        first.</span
      ></SoundPlayer
    >
  </section>
</template>

<style scoped>
.clip {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}
.tools [role='group'] {
  display: flex;
  gap: 0.3rem;
}
input {
  display: inline-block;
  width: 8rem;
}
</style>
