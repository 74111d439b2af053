<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Knob } from '@/api/client'

/** A recording of tone at several settings of one control, or any recording that is only to be measured. */
const props = defineProps<{ knobs: readonly Knob[] }>()
const emit = defineEmits<{
  send: [file: File, settings: number[], target: number | null]
  simulate: [knob: Knob, positions: number[], target: number]
}>()
const settings = ref('')
const target = ref<number | ''>(-20)
const knob = ref(0)
const marks = () =>
  settings.value
    .replaceAll('−', '-')
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number)

function simulate() {
  const chosen = props.knobs[knob.value] ?? props.knobs[0]
  if (chosen) emit('simulate', chosen, marks(), Number(target.value || 0))
}

function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) emit('send', file, marks(), marks().length ? Number(target.value || 0) : null)
}
</script>

<template>
  <details class="no-print">
    <summary>Another recording, or one at several settings</summary>
    <p class="small soft">
      Record the tone at each mark of a knob or menu, a second or two each. Name the marks in that order, and
      the one that meets the target is found. Without marks it is only measured.
    </p>
    <div class="asked">
      <label class="field"
        ><span>Marks, in order</span><input v-model="settings" placeholder="40, 50, 60, 70"
      /></label>
      <label class="field"
        ><span>Target, dBFS</span><input v-model.number="target" type="number" min="-120" max="0"
      /></label>
      <label class="field"
        ><span>Recording</span
        ><input type="file" accept="audio/*,video/*,.wav,.mov,.mp4,.mxf" @change="chosen"
      /></label>
      <template v-if="knobs.length">
        <label class="field"
          ><span>Or turn a knob in the simulation; without marks, where it tells something</span
          ><select v-model.number="knob">
            <option v-for="(item, index) in knobs" :key="item.device + item.control" :value="index">
              {{ item.label }}
            </option>
          </select></label
        >
        <Button size="small" outlined @click="simulate">Turn the knob</Button>
      </template>
    </div>
  </details>
</template>

<style scoped>
summary {
  padding: 0.4rem 0;
  cursor: pointer;
}
.asked {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 6rem;
  gap: 0.6rem;
}
.asked label:has([type='file']) {
  grid-column: 1 / -1;
}
.asked button {
  align-self: end;
}
</style>
