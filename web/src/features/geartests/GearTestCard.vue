<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { GearTest } from '@/api/client'
import { formatMoment } from '@/format/time'
import { useJob } from '@/stores/job'

/** One test: what to do, step by step, and the ways to answer it. */
const props = defineProps<{ test: GearTest; told: string; wrong: string; isBusy: boolean }>()
const emit = defineEmits<{
  answer: [given: { yes?: boolean; value?: number }]
  send: [file: File, more: { marks?: number[]; value?: number; scale?: [number, number] }]
  simulate: []
}>()
const job = useJob()
const value = ref<number | ''>('')
const marks = ref(props.test.positions.join(', '))
const lowest = ref<number | ''>('')
const highest = ref<number | ''>('')

/** A meter is read beside a recording; all other values answer by themselves. */
const wantsBoth = props.test.kind === 'meter'
const numbers = () =>
  marks.value
    .replaceAll('−', '-')
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number)

function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = '' // the same file can be sent again
  if (!file) return
  emit('send', file, {
    ...(props.test.kind === 'knob' ? { marks: numbers() } : {}),
    ...(value.value !== '' ? { value: value.value } : {}),
    ...(lowest.value !== '' && highest.value !== ''
      ? { scale: [lowest.value, highest.value] as [number, number] }
      : {}),
  })
}
</script>

<template>
  <section class="test">
    <h3>{{ test.title }}</h3>
    <p v-if="test.found && !told" class="found">
      {{ test.found }} <span v-if="test.when" class="soft">{{ formatMoment(test.when) }}</span>
    </p>
    <p class="soft small">{{ test.why }}</p>
    <ol>
      <li v-for="step in test.does" :key="step">{{ step }}</li>
    </ol>
    <div class="answers no-print">
      <fieldset v-if="test.question" :disabled="isBusy || job.readOnly">
        <legend>{{ test.question.asks }}</legend>
        <Button size="small" outlined @click="emit('answer', { yes: true })">{{ test.question.yes }}</Button>
        <Button size="small" outlined @click="emit('answer', { yes: false })">{{ test.question.no }}</Button>
      </fieldset>
      <form v-if="test.value" @submit.prevent="value !== '' && emit('answer', { value })">
        <label class="field"
          ><span>{{ test.value }}</span
          ><input v-model.number="value" type="number" step="0.1" min="-200" max="200"
        /></label>
        <Button
          v-if="!wantsBoth"
          type="submit"
          size="small"
          outlined
          :disabled="value === '' || isBusy || job.readOnly"
          >Save</Button
        >
      </form>
      <template v-if="test.kind === 'knob'">
        <label class="field wide"
          ><span>Marks, in the order of the recording</span><input v-model="marks"
        /></label>
        <label class="field"
          ><span>Its lowest mark, where it writes no dB</span
          ><input v-model.number="lowest" type="number" step="any"
        /></label>
        <label class="field"
          ><span>Its highest mark</span><input v-model.number="highest" type="number" step="any"
        /></label>
      </template>
      <label v-if="test.records" class="field wide"
        ><span>{{
          test.question || (test.value && !wantsBoth) ? 'Or measure a recording' : 'Recording'
        }}</span
        ><input
          type="file"
          accept="audio/*,video/*,.wav,.mov,.mp4,.mxf"
          :disabled="isBusy || job.readOnly || (wantsBoth && value === '')"
          @change="chosen"
      /></label>
      <Button
        v-if="test.records"
        outlined
        size="small"
        :disabled="isBusy || job.readOnly"
        @click="emit('simulate')"
        >Simulate it</Button
      >
    </div>
    <p v-if="isBusy" role="status">Measuring…</p>
    <p v-if="told" class="told" role="status">{{ told }}</p>
    <p v-if="wrong" class="is-stop" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
.test {
  display: grid;
  gap: 0.5rem;
  padding: 0.8rem 1rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.found,
.told {
  font-weight: 600;
}
ol {
  display: grid;
  gap: 0.25rem;
  margin: 0;
  padding-left: 1.3rem;
  list-style: decimal;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem 1.2rem;
  align-items: end;
}
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  padding: 0;
  border: 0;
}
legend {
  padding: 0 0 0.25rem;
  font-weight: 600;
}
form {
  display: flex;
  gap: 0.5rem;
  align-items: end;
}
.field {
  width: 12rem;
}
.wide {
  width: 19rem;
}
</style>
