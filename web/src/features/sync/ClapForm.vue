<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { PlaceIn, Sync } from '@/api/client'
import { lasting } from '@/format/time'

/** By hand: the picture, or the moment, in which hands close, and where that is heard. */
const props = defineProps<{ files: Sync['files'] }>()
const emit = defineEmits<{ place: [file: string, where: PlaceIn] }>()
const other = ref('')
const reference = ref('')
const heard = ref<number | ''>('')
const moment = ref<number | ''>('')
const cameras = computed(() => props.files.filter(({ side, state }) => side === 'camera' && state === 'done'))
const others = computed(() => props.files.filter(({ id, state }) => id !== other.value && state === 'done'))
const camera = computed(() => props.files.find(({ id }) => id === other.value))
const claps = computed(() => props.files.find(({ id }) => id === reference.value)?.claps_s ?? [])
const byPicture = computed(() => Boolean(camera.value?.frame_rate))

function place() {
  const at = Number(moment.value)
  emit('place', other.value, {
    reference: reference.value,
    reference_s: Number(heard.value),
    ...(byPicture.value ? { frame: at } : { other_s: at }),
  })
}
</script>

<template>
  <details class="no-print">
    <summary>Place a file by a clap</summary>
    <p class="soft small">
      For a clip without sound, or where nothing was found: count the picture in which the hands close, the
      first one being 0.
    </p>
    <form class="asked" @submit.prevent="place">
      <label class="field"
        ><span>camera file</span>
        <select v-model="other">
          <option v-for="file in cameras" :key="file.id" :value="file.id">{{ file.name }}</option>
        </select></label
      >
      <label class="field"
        ><span>{{ byPicture ? 'hands close in picture' : 'clap at, s' }}</span>
        <input v-model.number="moment" type="number" min="0" step="any"
      /></label>
      <label class="field"
        ><span>belongs to</span>
        <select v-model="reference">
          <option v-for="file in others" :key="file.id" :value="file.id">{{ file.name }}</option>
        </select></label
      >
      <label class="field"
        ><span>clap heard at, s</span>
        <input v-model.number="heard" type="number" min="0" step="any" list="claps" />
        <datalist id="claps">
          <option v-for="clap in claps" :key="clap" :value="clap">{{ lasting(clap) }}</option>
        </datalist></label
      >
      <Button type="submit" size="small" :disabled="!other || !reference || heard === '' || moment === ''"
        >Place the file</Button
      >
    </form>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 0.8rem;
  align-items: end;
  padding-top: 0.5rem;
}
.field input,
.field select {
  width: auto;
  max-width: 14rem;
}
</style>
