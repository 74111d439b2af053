<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { LogEntry, SceneNotes } from '@/api/client'
import type { Tap } from '@/composables/useLogbook'

/** Where each knob goes in each part of the scene; how a take is heard again; what goes out live. */
const props = defineProps<{ notes: SceneNotes; waiting: readonly LogEntry[]; mayLog: boolean }>()
const emit = defineEmits<{ tap: [entry: Tap] }>()
const part = ref('')
const track = ref('')
const isMarking = ref(false)
const level = ref<number | ''>('')
const chosen = computed(() => track.value || (props.notes.tracks[0]?.id ?? ''))
const isReady = computed(() => Boolean(part.value.trim() && chosen.value && level.value !== ''))
const onTheWay = computed(() => props.waiting.filter(({ act }) => act === 'mark'))
const named = (id: string) => props.notes.tracks.find((item) => item.id === id)?.label ?? id

function mark() {
  if (!isReady.value) return
  const level_dbfs = -Math.abs(Number(level.value))
  emit('tap', {
    ...{ act: 'mark', slate: props.notes.scene, text: part.value.trim() },
    ...{ track: chosen.value, level_dbfs },
  })
  level.value = ''
}
const remove = (text: string, id: string) =>
  emit('tap', { act: 'unmark', slate: props.notes.scene, text, track: id })
</script>

<template>
  <section class="scene" aria-label="Notes of the scene">
    <template v-if="notes.parts.length">
      <h3>Scene {{ notes.scene }}: where the knobs go</h3>
      <ol>
        <li v-for="item in notes.parts" :key="item.part">
          <strong>{{ item.part }}</strong>
          <p v-for="one in item.marks" :key="one.track" :class="{ caution: one.trouble }">
            <span class="mark">{{ one.mark || '–' }}</span>
            <span
              >{{ one.where }} {{ one.knob }} · {{ one.who }}
              <span class="soft" :class="{ lands: !one.trouble }"
                >{{ one.outcome }} (read {{ String(one.read_peak_dbfs).replace('-', '−') }})</span
              >
              <Button
                v-if="isMarking"
                size="small"
                text
                data-repeats
                :aria-label="`Remove the mark of ${one.where} in ${item.part}`"
                @click="remove(item.part, one.track)"
                >Remove</Button
              ></span
            >
          </p>
        </li>
      </ol>
    </template>
    <p v-for="item in onTheWay" :key="item.id" class="small">
      {{ item.text }}: {{ named(item.track ?? '') }}, read {{ String(item.level_dbfs).replace('-', '−') }};
      waits here
    </p>
    <details
      v-if="mayLog && notes.tracks.length"
      class="small no-print"
      @toggle="(event) => (isMarking = (event.target as HTMLDetailsElement).open)"
    >
      <summary>Level marks from rehearsal</summary>
      <form class="form-row" @submit.prevent="mark">
        <label class="field"
          ><span>Part of scene {{ notes.scene }}</span
          ><input v-model="part" class="plain-input" maxlength="80" placeholder="she whispers at the door"
        /></label>
        <label class="field"
          ><span>Track</span
          ><select v-model="track">
            <option v-for="(item, at) in notes.tracks" :key="item.id" :value="at ? item.id : ''">
              {{ item.label }}
            </option>
          </select></label
        >
        <label class="field level"
          ><span>Its peaks, dBFS</span
          ><input
            v-model.number="level"
            class="plain-input num"
            type="number"
            min="-100"
            max="100"
            step="0.5"
            placeholder="−30"
        /></label>
        <button type="submit" data-repeats class="tap" :disabled="!isReady">Mark</button>
      </form>
      <p class="soft">
        Read the meter while the part is rehearsed, at the settings of the plan. From that follows how loud it
        is, and where the knob goes for it. Settings that change later move the mark along.
      </p>
    </details>
    <details v-if="notes.playback.length || notes.stream?.length" class="small">
      <summary>Playback{{ notes.stream?.length ? ' and stream' : '' }}</summary>
      <p v-for="line in notes.playback" :key="line">{{ line }}.</p>
      <p v-if="notes.playback.length" class="soft">{{ notes.playback_caution }}</p>
      <template v-if="notes.stream?.length">
        <p><strong>The stream gets</strong></p>
        <p v-for="line in notes.stream" :key="line">{{ line }}.</p>
      </template>
    </details>
  </section>
</template>

<style scoped>
.scene {
  display: grid;
  gap: 0.5rem;
}
h3 {
  font-size: 1rem;
}
ol {
  display: grid;
  gap: 0.5rem;
  padding-left: 1.3rem;
}
li p {
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr);
  gap: 0.5rem;
  align-items: baseline;
}
.mark {
  font-weight: 700;
  font-size: 1.1rem;
  white-space: nowrap;
}
.caution .mark {
  color: var(--caution);
}
form .field {
  flex: 1 1 10rem;
}
form .level {
  flex: 0 1 7rem;
}
@media (width < 700px) {
  .lands {
    display: none;
  }
}
</style>
