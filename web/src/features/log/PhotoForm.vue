<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Log, LoggedTake } from '@/api/client'
import PhotoStrip from './PhotoStrip.vue'
import type { usePhotos } from './usePhotos'

/** A photograph of a knob, a menu or a plug, for whoever asks tomorrow how it stood. */
const props = defineProps<{
  album: ReturnType<typeof usePhotos>
  about: LoggedTake | undefined
  devices: NonNullable<Log['devices']>
  mayLog: boolean
}>()
const device = ref('')
const text = ref('')
const shown = computed(() => props.album.shown.value)
const problem = computed(() => props.album.problem.value)

async function taken(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return
  const label = props.devices.find(({ id }) => id === device.value)?.label
  const of = { take: props.about?.id ?? '', device: device.value, text: text.value.trim() }
  await props.album.take(file, of, [label, props.about?.label].filter(Boolean).join(', '))
  field.value = ''
  text.value = ''
}
</script>

<template>
  <details class="small">
    <summary>Photographs of settings{{ shown.length ? `: ${shown.length}` : '' }}</summary>
    <form v-if="mayLog" class="form-row no-print" @submit.prevent>
      <label class="field"
        ><span>Of</span
        ><select v-model="device">
          <option value="">anything</option>
          <option v-for="item in devices" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select></label
      >
      <label class="field"
        ><span>What it shows</span
        ><input v-model="text" class="plain-input" maxlength="2000" placeholder="gain of channel 2"
      /></label>
      <label class="tap shoot"
        >Take a photograph<input
          class="visually-hidden"
          type="file"
          accept="image/*"
          capture="environment"
          @change="taken"
      /></label>
    </form>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <PhotoStrip :photos="shown" :may-log="mayLog" @remove="album.remove" />
  </details>
</template>

<style scoped>
form .field {
  flex: 1 1 9rem;
}
</style>
