<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { addresses } from '@/api/addresses'
import { useJob } from '@/stores/job'
import SeverityMark from '@/ui/SeverityMark.vue'
import ClapForm from './ClapForm.vue'
import ClipPanel from './ClipPanel.vue'
import DriftForm from './DriftForm.vue'
import FileDrop from './FileDrop.vue'
import TimelineChart from './TimelineChart.vue'
import { useSync } from './useSync'

/** Sync files: what recorders and cameras kept, dropped in and laid over each other. */
const job = useJob()
const isOfJob = useRoute().name === 'sync' // else they are of none
const {
  sync,
  problem,
  sending,
  chosen,
  clip,
  isBusy,
  name,
  send,
  remove,
  match,
  cancel,
  nudge,
  restore,
  place,
} = useSync()
const files = computed(() => sync.value?.files ?? [])
const ofSide = (side: string) => files.value.filter((file) => file.side === side)
const ready = computed(() => files.value.filter(({ state }) => state === 'done').length)
/** Timelines of several files; a file that hangs on nothing is told below. */
const lines = computed(() => sync.value?.timelines.filter((line) => line.files.length > 1) ?? [])
const lost = computed(() => {
  const found = new Set(sync.value?.clips.map(({ other }) => other))
  const alone = new Set(
    sync.value?.timelines
      .filter((line) => line.files.length < 2)
      .flatMap((line) => line.files.map(({ id }) => id)),
  )
  return files.value.filter(({ id, side }) => side === 'camera' && alone.has(id) && !found.has(id))
})
const jobId = computed(() => job.newest?.job ?? '')
</script>

<template>
  <div class="page">
    <header>
      <h2>Sync files</h2>
      <RouterLink v-if="isOfJob" :to="{ name: 'clock' }">Back to Timecode</RouterLink>
      <span class="go">
        <template v-if="isBusy">
          <progress :value="sync?.match?.progress ?? 0" max="1" aria-label="Files are being synced" />
          <Button size="small" outlined @click="cancel">Cancel</Button>
        </template>
        <Button v-else :disabled="ready < 2" @click="match">Sync files</Button>
      </span>
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="sending" role="status">{{ sending }} is sent…</p>
    <div class="sides">
      <FileDrop
        title="Recorder files"
        hint="WAV, Broadcast WAV, RF64; drop them here. None: the longest camera file stands for it."
        :files="ofSide('recorder')"
        @send="send($event, 'recorder')"
        @remove="remove"
      />
      <FileDrop
        title="Camera files"
        hint="movies, or their sound; with timecode, with the same sound, or with a clap"
        :files="ofSide('camera')"
        @send="send($event, 'camera')"
        @remove="remove"
      />
    </div>
    <p v-if="sync?.match?.state === 'failed'" class="is-stop" role="alert">{{ sync.match.message }}</p>
    <p v-if="sync?.match?.state === 'cancelled'" class="soft">
      Cancelled{{ sync.is_laid ? ': what was found before stands' : '' }}.
    </p>
    <template v-if="sync?.is_laid">
      <p v-if="sync.is_stale" class="is-caution">
        <SeverityMark severity="caution" :size="11" /> Files came or went since: sync them again.
      </p>
      <section v-for="(line, index) in lines" :key="index" class="line">
        <header>
          <h3>{{ line.has_clock ? `From ${line.starts}` : 'Together' }}</h3>
          <span class="soft small">{{
            line.has_clock ? 'by their own clock' : 'no clock: it begins at 00:00:00:00'
          }}</span>
          <span class="exports no-print">
            <a
              v-for="kind in ['csv', 'edl', 'otio']"
              :key="kind"
              :href="addresses.timeline(jobId, index, kind)"
              download
              >{{ kind.toUpperCase() }}</a
            >
          </span>
        </header>
        <TimelineChart :line="line" :clips="sync.clips" :chosen="chosen" @choose="chosen = $event" />
      </section>
      <p v-for="file in lost" :key="file.id" class="is-caution">
        <SeverityMark severity="caution" :size="11" /> {{ file.name }} no match found: no timecode in common,
        nothing that both hear, no claps that fit.
      </p>
      <ClipPanel
        v-if="clip"
        :job="jobId"
        :clip="clip"
        :files="files"
        @nudge="nudge(clip, $event)"
        @restore="restore(clip.other)"
      />
      <DriftForm v-if="clip && clip.drift_ppm !== null" :key="clip.other" :ppm="clip.drift_ppm" />
      <p v-if="clip" class="soft small">
        Look at picture and sound of {{ name(clip.other) }} before you trust it.
      </p>
      <ClapForm :files="files" @place="place" />
    </template>
    <p v-else-if="!files.length" class="soft">
      Nothing was dropped in yet. One recorder file and one camera file are enough to begin with; originals
      are never written over.
    </p>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
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
.go,
.exports {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-left: auto;
}
.sides {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 1rem;
}
progress {
  width: 12rem;
  accent-color: var(--accent);
}
@media (width < 800px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
