<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Sync } from '@/api/client'
import { clockTime, lasting } from '@/format/time'

/** Files of one side: dropped in or chosen, and what was found when each was looked at. */
defineProps<{ title: string; hint: string; files: Sync['files'] }>()
const emit = defineEmits<{ send: [files: File[]]; remove: [id: string] }>()
const over = ref(false)
const under = (state: string) => state === 'waiting' || state === 'reading'
const clock = (seconds: number | null) =>
  seconds === null ? '' : `, from ${clockTime(Math.floor(seconds / 60))}`

function take(list: FileList | null | undefined) {
  over.value = false
  if (list?.length) emit('send', [...list])
}
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  take(input.files)
  input.value = ''
}
</script>

<template>
  <section
    class="side"
    :class="{ over }"
    :aria-label="title"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="take($event.dataTransfer?.files)"
  >
    <label class="field"
      ><strong>{{ title }}</strong
      ><span class="small">{{ hint }}</span
      ><input type="file" multiple accept="audio/*,video/*,.wav,.bwf,.rf64,.mov,.mp4,.mxf" @change="chosen"
    /></label>
    <ul>
      <li v-for="file in files" :key="file.id">
        <span class="name">{{ file.name }}</span>
        <progress
          v-if="under(file.state)"
          :value="file.progress"
          max="1"
          :aria-label="`${file.name} is looked at`"
        />
        <span v-else-if="file.state !== 'done'" class="is-stop small">{{ file.message || file.state }}</span>
        <span v-else class="soft small"
          >{{ lasting(file.duration_s ?? 0) }}{{ clock(file.began_s)
          }}<template v-if="!file.rate_hz">, no sound</template></span
        >
        <Button text size="small" :aria-label="`Remove ${file.name}`" @click="emit('remove', file.id)"
          >Remove</Button
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.side {
  padding: 0.7rem 0.9rem;
  border: 1px dashed var(--line-strong);
  border-radius: var(--radius);
}
.side.over {
  background: var(--sheet);
  border-style: solid;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0.8rem;
  align-items: center;
  min-height: 2.2rem;
  border-top: 1px solid var(--line);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
ul {
  margin-top: 0.5rem;
}
progress {
  width: 8rem;
  accent-color: var(--accent);
}
</style>
