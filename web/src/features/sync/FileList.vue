<script setup lang="ts">
import Button from 'primevue/button'

import type { Sync } from '@/api/client'
import { clockTime, lasting } from '@/format/time'

/** The files as they were dropped in: which side each is of, how long, and from when by its own clock. */
defineProps<{ files: Sync['files'] }>()
const emit = defineEmits<{ side: [id: string, side: string]; remove: [id: string] }>()
const under = (state: string) => state === 'waiting' || state === 'reading'
const OTHER = { recorder: 'camera', camera: 'recorder' } as Record<string, string>
const clock = (seconds: number | null) =>
  seconds === null ? '' : `, from ${clockTime(Math.floor(seconds / 60))}`
</script>

<template>
  <ul aria-label="Files">
    <li v-for="file in files" :key="file.id">
      <Button
        size="small"
        text
        :aria-label="`${file.name} is of a ${file.side}: change it`"
        :disabled="file.state !== 'done'"
        @click="emit('side', file.id, OTHER[file.side] ?? 'camera')"
        >{{ file.side }}</Button
      >
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
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 6.5rem minmax(0, 1fr) auto auto;
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
progress {
  width: 8rem;
  accent-color: var(--accent);
}
@media (width < 700px) {
  li {
    grid-template-columns: 5.5rem minmax(0, 1fr);
  }
}
</style>
