<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { addresses } from '@/api/addresses'
import { useJob } from '@/stores/job'
import DropArea from '@/ui/DropArea.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import ClapForm from './ClapForm.vue'
import ClipPanel from './ClipPanel.vue'
import ClipRow from './ClipRow.vue'
import DriftForm from './DriftForm.vue'
import FileList from './FileList.vue'
import LostFile from './LostFile.vue'
import { useSync } from './useSync'

/** Sync files: dropped in one place, told apart, synced by themselves; a line for each clip says where it was found and how. */
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
  setSide,
  remove,
  match,
  cancel,
  nudge,
  restore,
  place,
} = useSync()
const files = computed(() => sync.value?.files ?? [])
const ready = computed(() => files.value.filter(({ state }) => state === 'done').length)
/** Timelines of several files; a file that belongs to nothing is told below. */
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
/** The file that a user wants to place where it may lie. */
const looked = ref('')
const guessOf = (file: string) => sync.value?.guesses.find(({ other }) => other === file)
const jobId = computed(() => job.newest?.job ?? '')
const EXPORTS = [
  ['otio', 'timeline (OTIO)'],
  ['edl', 'edit list (EDL)'],
  ['csv', 'table (CSV)'],
] as const
</script>

<template>
  <div class="page" :class="{ of: isOfJob }">
    <header>
      <h2>Sync files</h2>
      <RouterLink v-if="isOfJob" :to="{ name: 'clock' }">Back to Timecode</RouterLink>
      <span class="go">
        <template v-if="isBusy">
          <progress :value="sync?.match?.progress ?? 0" max="1" aria-label="Files are being synced" />
          <Button size="small" outlined @click="cancel">Cancel</Button>
        </template>
        <Button v-else-if="ready >= 2" outlined size="small" @click="match">Sync again</Button>
      </span>
    </header>
    <DropArea title="Drop all files here, of recorders and cameras" @files="send"
      >WAV, Broadcast WAV and movies; which is which is told from the files, and changed by a click. They are
      synced by timecode, by the same sound, or by a clap. Originals are never written over.</DropArea
    >
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="sending" role="status">{{ sending }} is sent…</p>
    <FileList v-if="files.length" :files="files" @side="setSide" @remove="remove" />
    <p v-if="sync?.match?.state === 'failed'" class="is-stop" role="alert">{{ sync.match.message }}</p>
    <p v-if="sync?.match?.state === 'cancelled'" class="soft">
      Cancelled{{ sync.is_laid ? ': what was found before stands' : '' }}.
    </p>
    <template v-if="sync?.is_laid">
      <p v-if="sync.is_stale && !isBusy" class="is-caution">
        <SeverityMark severity="caution" :size="11" /> Files came or went since: sync them again.
      </p>
      <ul class="clips" aria-label="Clips">
        <ClipRow
          v-for="item in sync.clips"
          :key="item.other"
          :job="jobId"
          :clip="item"
          :files="files"
          :is-open="item.other === chosen"
          @open="chosen = chosen === item.other ? '' : item.other"
        >
          <ClipPanel
            v-if="clip && item.other === chosen"
            :job="jobId"
            :clip="clip"
            :files="files"
            @nudge="nudge(clip, $event)"
            @restore="restore(clip.other)"
          />
        </ClipRow>
        <LostFile
          v-for="file in lost"
          :key="file.id"
          :name="file.name"
          :guess="guessOf(file.id)"
          :reference="name(guessOf(file.id)?.reference ?? '')"
          @look="looked = file.id"
        />
      </ul>
      <p v-for="(line, index) in lines" :key="index" class="exports no-print">
        <span>{{
          line.has_clock ? `Timeline from ${line.starts}` : 'Timeline, no timecode: starts at 0'
        }}</span>
        <a
          v-for="[kind, label] in EXPORTS"
          :key="kind"
          :href="addresses.timeline(jobId, index, kind)"
          download
          >Export {{ label }}</a
        >
      </p>
      <DriftForm v-if="clip && clip.drift_ppm !== null" :key="clip.other" :ppm="clip.drift_ppm" />
      <p v-if="clip" class="soft small">
        Look at picture and sound of {{ name(clip.other) }} before you trust it.
      </p>
      <ClapForm :job="jobId" :files="files" :guess="guessOf(looked)" @place="place" />
    </template>
    <p v-else-if="!files.length" class="soft">
      Nothing was dropped in yet. One recorder file and one camera file are enough to begin with.
    </p>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
  align-content: start;
}
.page.of {
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
.go {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-left: auto;
}
.exports {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
}
progress {
  width: 12rem;
  accent-color: var(--accent);
}
</style>
