<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import type { PlaceIn, Sync } from '@/api/client'
import { lasting } from '@/format/time'
import StillView from './StillView.vue'

/** By hand: the picture, or the moment, in which hands close, and where that is heard. */
const props = defineProps<{
  job: string
  files: Sync['files']
  /** Where a file may lie: what the form begins with. */
  guess?: Sync['guesses'][number]
}>()
const emit = defineEmits<{ place: [file: string, where: PlaceIn] }>()
const isOpen = ref(false)
const other = ref('')
const reference = ref('')
const heard = ref<number | ''>('')
const moment = ref<number | ''>('')
const cameras = computed(() => props.files.filter(({ side, state }) => side === 'camera' && state === 'done'))
const others = computed(() => props.files.filter(({ id, state }) => id !== other.value && state === 'done'))
const camera = computed(() => props.files.find(({ id }) => id === other.value))
const claps = computed(() => props.files.find(({ id }) => id === reference.value)?.claps_s ?? [])
const byPicture = computed(() => Boolean(camera.value?.frame_rate))

watch(
  () => props.guess,
  (guess) => {
    if (!guess) return
    isOpen.value = true
    other.value = guess.other
    reference.value = guess.reference
    heard.value = guess.reference_s
    moment.value = guess.frame ?? guess.other_s
  },
  { immediate: true },
)
/** A file that was chosen by hand begins at its first picture, and mostly belongs to the first recorder file. */
function chosen() {
  moment.value = byPicture.value ? 0 : ''
  reference.value ||= others.value.find(({ side }) => side === 'recorder')?.id ?? ''
}

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
  <details class="no-print" :open="isOpen" @toggle="isOpen = ($event.target as HTMLDetailsElement).open">
    <summary>Place a file by a clap</summary>
    <p class="soft small">
      For a clip without sound, or where nothing was found: step to the picture in which the hands close, and
      say where that is heard.
    </p>
    <form @submit.prevent="place">
      <StillView
        v-if="camera && byPicture"
        :job="job"
        :file="camera.id"
        :name="camera.name"
        :model-value="Number(moment)"
        @update:model-value="moment = $event"
      />
      <div class="asked">
        <label class="field"
          ><span>camera file</span>
          <select v-model="other" @change="chosen">
            <option v-for="file in cameras" :key="file.id" :value="file.id">{{ file.name }}</option>
          </select></label
        >
        <label v-if="camera && !byPicture" class="field"
          ><span>clap at, s</span> <input v-model.number="moment" type="number" min="0" step="any"
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
      </div>
    </form>
  </details>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2rem;
  padding-top: 0.6rem;
}
.asked {
  display: grid;
  flex: 1 1 14rem;
  gap: 0.6rem;
  align-content: start;
  justify-items: start;
  max-width: 22rem;
}
.field {
  width: 100%;
}
</style>
