<script setup lang="ts">
import { ref } from 'vue'

import RecordingList from './RecordingList.vue'
import RecordingResult from './RecordingResult.vue'
import { useRecordings } from './useRecordings'

/** Check a recording that belongs to no job: dropped in, measured, and said what it means. */
const files = useRecordings()
const { recordings, opened, result, sending, problem } = files
const over = ref(false)

function take(list: FileList | null | undefined) {
  over.value = false
  for (const file of list ?? []) void files.send(file, {})
}
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  take(input.files)
  input.value = ''
}
</script>

<template>
  <div class="check">
    <h1 class="visually-hidden">Check a recording</h1>
    <label
      class="drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="take($event.dataTransfer?.files)"
    >
      <strong>Drop a recording here, or choose one</strong>
      <span class="soft small"
        >a WAV, or a camera's movie; it is measured on this machine, and its sound is not kept</span
      >
      <input
        type="file"
        multiple
        autofocus
        accept="audio/*,video/*,.wav,.bwf,.rf64,.mov,.mp4,.mxf"
        @change="chosen"
      />
    </label>
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
.drop {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.3rem;
  padding: 1.4rem;
  border: 1px dashed var(--line-strong);
  border-radius: var(--radius);
}
.drop.over {
  background: var(--sheet);
  border-style: solid;
}
.drop input {
  width: 100%;
}
.drop strong {
  font-size: 1.15rem;
}
</style>
