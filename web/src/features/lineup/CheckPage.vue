<script setup lang="ts">
import DropArea from '@/ui/DropArea.vue'
import RecordingList from './RecordingList.vue'
import RecordingResult from './RecordingResult.vue'
import { useRecordings } from './useRecordings'

/** Check a recording that belongs to no job: dropped in, measured, and said what it means. */
const files = useRecordings()
const { recordings, opened, result, sending, problem } = files

function take(list: readonly File[]) {
  for (const file of list) void files.send(file, {})
}
</script>

<template>
  <div class="check">
    <h1 class="visually-hidden">Check a recording</h1>
    <DropArea title="Drop a recording here, or choose one" autofocus @files="take"
      >a WAV, or a camera's movie; it is measured on this machine, and its sound is not kept</DropArea
    >
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <RecordingResult v-if="opened && result" :recording="opened" :result="result" :step="undefined" />
    <RecordingList
      :recordings="recordings"
      :opened="opened?.id ?? ''"
      :sending="sending"
      @open="files.open"
      @cancel="files.cancel"
      @remove="files.remove"
    />
  </div>
</template>

<style scoped>
.check {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1.2rem;
}
</style>
