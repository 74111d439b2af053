<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Log } from '@/api/client'
import type { Tap } from '@/composables/useLogbook'
import { useReadTimecode } from './useReadTimecode'

/** What timecode takes get: time of day, or on from what a device shows. */
const props = defineProps<{ log: Log; job: string }>()
const emit = defineEmits<{ tap: [entry: Tap] }>()
const { problem, isListening, canListen, set, listen } = useReadTimecode(
  () => props.job,
  (entry) => emit('tap', entry),
)
const typed = ref('')

function setTyped() {
  set(typed.value.trim())
  typed.value = ''
}
</script>

<template>
  <details class="clock no-print small">
    <summary>
      Timecode of the takes:
      {{ log.read ? `on from ${log.read.timecode}, read at ${log.read.clock}` : 'time of day' }}
    </summary>
    <form class="form-row" @submit.prevent="setTyped">
      <label class="field"
        ><span>What the recorder shows now</span
        ><input
          v-model="typed"
          class="plain-input"
          maxlength="11"
          pattern="\d{2}:\d{2}:\d{2}[:;]\d{2}"
          placeholder="10:00:00:00"
          inputmode="numeric"
      /></label>
      <Button type="submit" size="small" outlined :disabled="!typed.trim()">Set timecode</Button>
      <Button v-if="canListen" size="small" outlined :disabled="isListening" @click="listen">{{
        isListening ? 'Listening…' : 'Read it from the sound input'
      }}</Button>
    </form>
    <p class="soft">
      Typed it is right within a second; read from a timecode output that is plugged into this machine, within
      a few frames. A timecode output is loud: turn the input down first, and take the headphones off.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
  </details>
</template>
