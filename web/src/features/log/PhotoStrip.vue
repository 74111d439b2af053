<script setup lang="ts">
import Button from 'primevue/button'

import type { ShownPhoto } from './usePhotos'

/** Photographs of settings, small; pointed at they open whole. */
defineProps<{ photos: readonly ShownPhoto[]; mayLog: boolean }>()
const emit = defineEmits<{ remove: [photo: ShownPhoto] }>()
const named = (photo: ShownPhoto) => [photo.what, photo.text].filter(Boolean).join(': ') || 'Photograph'
</script>

<template>
  <ul v-if="photos.length" class="photos" aria-label="Photographs">
    <li v-for="photo in photos" :key="photo.id">
      <a :href="photo.src" target="_blank" rel="noopener"
        ><img :src="photo.src" :alt="named(photo)" loading="lazy"
      /></a>
      <span class="small">{{ named(photo) }}{{ photo.waits ? ', waits here' : '' }}</span>
      <Button
        v-if="mayLog"
        class="no-print"
        size="small"
        text
        data-repeats
        :aria-label="`Remove ${named(photo)}`"
        @click="emit('remove', photo)"
        >Remove</Button
      >
    </li>
  </ul>
</template>

<style scoped>
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
}
li {
  display: grid;
  gap: 0.2rem;
  width: 9rem;
  justify-items: start;
  overflow-wrap: anywhere;
}
img {
  display: block;
  width: 9rem;
  height: 6.5rem;
  object-fit: cover;
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
}
</style>
