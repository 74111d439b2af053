<script setup lang="ts">
import { ref } from 'vue'

/** Where files are dropped or chosen. The slot says what becomes of them. */
defineProps<{ title: string; autofocus?: boolean }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const over = ref(false)

function take(list: FileList | null | undefined) {
  over.value = false
  if (list?.length) emit('files', [...list])
}
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  take(input.files)
  input.value = '' // the same file can be sent again
}
</script>

<template>
  <label
    class="drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <strong>{{ title }}</strong>
    <span class="soft small"><slot /></span>
    <input
      type="file"
      multiple
      :autofocus="autofocus"
      accept="audio/*,video/*,.wav,.bwf,.rf64,.mov,.mp4,.mxf"
      @change="chosen"
    />
  </label>
</template>

<style scoped>
.drop {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.3rem;
  padding: 1rem 1.2rem;
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
