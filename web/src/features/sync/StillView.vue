<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'

import { addresses } from '@/api/addresses'

/** A camera file's pictures, one at a time: stepped through until hands close. */
const props = defineProps<{ job: string; file: string; name: string }>()
const frame = defineModel<number>({ required: true })
const STEPS = [-10, -1, 1, 10]
const isMissing = ref(false)
watch([frame, () => props.file], () => (isMissing.value = false))
const step = (by: number) => (frame.value = Math.max(0, (Number(frame.value) || 0) + by))
</script>

<template>
  <figure>
    <p v-if="isMissing" class="gone is-caution" role="alert">
      {{ name }} has no picture {{ frame }}: give a lower number.
    </p>
    <img
      v-else
      :src="addresses.still(job, file, frame)"
      :alt="`Picture ${frame} of ${name}`"
      @error="isMissing = true"
    />
    <figcaption>
      <Button
        v-for="by in STEPS.slice(0, 2)"
        :key="by"
        size="small"
        outlined
        data-repeats
        :aria-label="`${-by} ${by === -1 ? 'picture' : 'pictures'} back`"
        @click="step(by)"
        >−{{ -by }}</Button
      >
      <label
        >picture <input v-model.number="frame" class="plain-input num" type="number" min="0" step="1"
      /></label>
      <Button
        v-for="by in STEPS.slice(2)"
        :key="by"
        size="small"
        outlined
        data-repeats
        :aria-label="`${by} ${by === 1 ? 'picture' : 'pictures'} on`"
        @click="step(by)"
        >+{{ by }}</Button
      >
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  margin: 0;
  gap: 0.5rem;
  width: min(100%, 30rem);
}
img,
.gone {
  display: block;
  width: 100%;
  min-height: 12rem;
  object-fit: contain;
  background: var(--sheet);
  border: 1px solid var(--line);
}
.gone {
  padding: 1rem;
}
figcaption {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  justify-content: center;
}
input {
  display: inline-block;
  width: 6rem;
}
</style>
