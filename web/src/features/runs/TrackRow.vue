<script setup lang="ts">
import type { Track } from '@/api/client'
import { formatLevel } from '@/format/levels'
import { VERDICTS } from '@/format/verdicts'
import SeverityMark from '@/ui/SeverityMark.vue'
import LeadSegment from './LeadSegment.vue'

/** One track: how sound gets there, source first, and the result. */
defineProps<{ track: Track; chosen: boolean; litRun: string }>()
const emit = defineEmits<{
  choose: []
  open: []
  device: [id: string]
  run: [id: string]
  light: [run: string]
}>()
</script>

<template>
  <div
    :id="`row-${track.id}`"
    class="row"
    :class="{ chosen, stop: track.severity === 'stop' }"
    :data-track="track.id"
    tabindex="0"
    role="group"
    :aria-current="chosen"
    :aria-label="`Track ${track.bus_label}, ${VERDICTS[track.verdict]}`"
    @click="emit('choose')"
    @focus="emit('choose')"
    @keydown.enter.self="emit('open')"
  >
    <strong class="bus">{{ track.bus_label }}</strong>
    <div class="way">
      <div v-for="(stop, index) in track.stops" :key="index" class="hop" :class="{ first: index === 0 }">
        <LeadSegment
          v-if="index > 0 && track.leads[index - 1]"
          :lead="track.leads[index - 1]!"
          :lit="litRun === track.leads[index - 1]!.run"
          :wrong="track.severity === 'stop' && index === track.stops.length - 1"
          @open="emit('run', track.leads[index - 1]!.run)"
          @light="emit('light', $event)"
        />
        <button type="button" class="stop-name" @click.stop="emit('device', stop.device)">
          <strong>{{ stop.label }}</strong>
          <span class="detail">{{ stop.detail }}</span>
        </button>
      </div>
      <span v-if="track.others" class="soft small others" :title="track.sources.join(', ')"
        >+ {{ track.others }} more</span
      >
    </div>
    <div class="num level" :class="{ over: track.over_db }">
      <strong>{{ formatLevel(track.average_dbfs) }}</strong>
      <span v-if="track.average_dbfs !== null" class="soft small"
        >±{{ formatLevel(track.tolerance_db) }}</span
      >
    </div>
    <div class="num level" :class="{ over: track.over_db }">
      <strong>{{ formatLevel(track.peak_dbfs) }}</strong>
    </div>
    <div class="verdict" :class="track.severity && `is-${track.severity}`">
      <span class="word">
        <SeverityMark v-if="track.severity" :severity="track.severity" />
        {{ VERDICTS[track.verdict] }}
      </span>
      <span v-if="track.over_db" class="small">by {{ formatLevel(track.over_db, 1) }} dB</span>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 2.6rem minmax(0, 1fr) 4.2rem 3.2rem 5.6rem;
  gap: 0 0.7rem;
  align-items: center;
  min-height: 3.6rem;
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
  border-left: 4px solid transparent;
  cursor: pointer;
}
.row.chosen {
  background: var(--chalk);
  border-left-color: var(--pin);
}
.row.stop.chosen {
  border-left-color: var(--stop);
}
.bus {
  padding-left: 0.35rem;
  line-height: 1.15;
}
.way {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  min-width: 0;
}
.hop {
  display: flex;
  flex: 1 1 13rem;
  align-items: center;
  min-width: 0;
}
.hop.first {
  flex: 0 1 auto;
}
.stop-name {
  display: grid;
  flex: 0 1 auto;
  min-width: 5.2rem;
  max-width: 10.5rem;
  padding: 0.1rem 0.35rem;
  font-size: 0.95rem;
  line-height: 1.25;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
.stop-name:hover strong {
  text-decoration: underline;
}
.detail {
  font-size: 0.85rem;
  color: var(--ink-soft);
}
.level {
  display: grid;
}
.level strong {
  font-size: 1.15rem;
}
.over strong {
  color: var(--stop);
}
.verdict {
  display: grid;
  justify-items: end;
  padding-right: 0.3rem;
  font-weight: 600;
}
.word {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
.others {
  padding-left: 0.4rem;
}
@media (width < 700px) {
  .row {
    grid-template-columns: 1fr 4.2rem 3.2rem 5.6rem;
    padding-bottom: 0.8rem;
  }
  .way {
    grid-column: 1 / -1;
    grid-row: 2;
  }
}
</style>
