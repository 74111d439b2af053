<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Log, LoggedTake } from '@/api/client'
import { formatMoment } from '@/format/time'
import PhotoStrip from './PhotoStrip.vue'
import type { usePhotos } from './usePhotos'

/** One take, opened: what it is good for, a note on a track, corrections with what stood there before. */
const props = defineProps<{
  take: LoggedTake
  tracks: Log['tracks']
  devices: NonNullable<Log['devices']>
  job: string
  playback: string
  album: ReturnType<typeof usePhotos>
  mayLog: boolean
}>()
const emit = defineEmits<{
  status: [wanted: LoggedTake['status']]
  note: [text: string, track: string]
  fault: [text: string, device: string]
  correct: [change: { slate?: string; number?: number; timecode?: string; text?: string }]
  strike: []
}>()
const STATES = [
  { id: 'circled', label: 'Circle' },
  { id: 'good', label: 'Good' },
  { id: 'false-start', label: 'False start' },
  { id: 'wild', label: 'Wild track' },
  { id: 'room-tone', label: 'Room tone' },
] as const
const slate = ref(props.take.slate)
const number = ref(props.take.number)
const timecode = ref(props.take.timecode)
const text = ref(props.take.text)
const noted = ref('')
const place = ref<{ track?: string; device?: string }>({})

function correct() {
  const change = {
    ...(slate.value.trim() !== props.take.slate && slate.value.trim() ? { slate: slate.value.trim() } : {}),
    ...(number.value !== props.take.number && number.value > 0 ? { number: Math.round(number.value) } : {}),
    ...(timecode.value !== props.take.timecode ? { timecode: timecode.value } : {}),
    ...(text.value !== props.take.text ? { text: text.value } : {}),
  }
  if (Object.keys(change).length) emit('correct', change)
}
function note() {
  if (place.value.device) emit('fault', noted.value, place.value.device)
  else emit('note', noted.value, place.value.track ?? '')
  noted.value = ''
}
</script>

<template>
  <div class="open">
    <div v-if="mayLog" class="states" role="group" :aria-label="`What ${take.label} is good for`">
      <button
        v-for="state in STATES"
        :key="state.id"
        class="tap"
        type="button"
        data-repeats
        :aria-pressed="take.status === state.id"
        @click="emit('status', state.id)"
      >
        {{ state.label }}
      </button>
    </div>
    <ul v-if="take.notes.length" class="small">
      <li v-for="item in take.notes" :key="item.at + item.text">
        {{ item.clock }} <strong>{{ item.text }}</strong><template v-if="item.where">
          on {{ item.where }}</template
        ><template v-if="item.who">, {{ item.who }}</template>
        <RouterLink
          v-if="item.symptom || item.is_fault"
          :to="{ name: 'wrong', query: { symptom: item.symptom, track: item.track } }"
          :aria-label="`Find it: ${item.text}`"
          >Find it</RouterLink
        >
      </li>
    </ul>
    <form v-if="mayLog" class="form-row" @submit.prevent="note">
      <label class="field"
        ><span>Note</span><input v-model="noted" class="plain-input" maxlength="2000"
      /></label>
      <label class="field"
        ><span>on</span
        ><select v-model="place">
          <option :value="{}">all tracks</option>
          <option v-for="item in tracks" :key="item.id" :value="{ track: item.id }">
            {{ item.device }} {{ item.track }}: {{ item.sources.join(', ') }}
          </option>
          <optgroup label="a fault at">
            <option v-for="item in devices" :key="item.id" :value="{ device: item.id }">
              {{ item.label }}
            </option>
          </optgroup>
        </select></label
      >
      <Button type="submit" size="small" outlined :disabled="!noted.trim()">Add note</Button>
    </form>
    <form v-if="mayLog" class="form-row" @submit.prevent="correct">
      <label class="field"
        ><span>Slate</span><input v-model="slate" class="plain-input" maxlength="24"
      /></label>
      <label class="field"
        ><span>Take</span
        ><input v-model.number="number" class="plain-input num" type="number" min="1" max="9999"
      /></label>
      <label class="field"
        ><span>Start timecode</span
        ><input v-model="timecode" class="plain-input" maxlength="11" pattern="\d{2}:\d{2}:\d{2}[:;]\d{2}"
      /></label>
      <Button type="submit" size="small" outlined>Correct</Button>
      <Button size="small" text data-repeats @click="emit('strike')">{{
        take.struck ? 'Restore' : 'Strike'
      }}</Button>
    </form>
    <p v-for="item in take.corrections" :key="item.at + item.what" class="small soft">
      {{ formatMoment(item.at) }}{{ item.who ? `, ${item.who}` : '' }}: {{ item.what }} was
      {{ item.was || 'empty' }}
    </p>
    <PhotoStrip
      :photos="album.shown.value.filter((photo) => photo.take === take.id)"
      :may-log="mayLog"
      @remove="album.remove"
    />
    <p v-if="playback && take.ends && !take.struck" class="small">
      Play it back from {{ take.timecode }}: {{ playback }}.
    </p>
    <p v-if="take.revision" class="small">
      Settings in force: revision {{ take.revision }} of the plan.
      <a :href="`/api/jobs/${job}/log/takes/${take.id}/plan`" target="_blank" rel="noopener"
        >All settings (JSON)</a
      >
    </p>
  </div>
</template>

<style scoped>
.open {
  display: grid;
  gap: 0.7rem;
  padding: 0.2rem 0 0.9rem;
}
.states {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
form .field {
  flex: 1 1 6rem;
}
</style>
