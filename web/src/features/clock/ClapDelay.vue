<script setup lang="ts">
import Button from 'primevue/button'
import { toRef } from 'vue'

import type { Clock } from '@/api/client'
import { plainNumber } from '@/format/levels'
import { useJob } from '@/stores/job'
import { useClap } from './useClap'

/** How late a picture really is, from a recording of the programme in which somebody claps. */
const props = defineProps<{ late: Clock['screens'][number] }>()
const job = useJob()
const { camera, frame, found, problem, busy, take, use } = useClap(toRef(props, 'late'))
</script>

<template>
  <details class="no-print">
    <summary>Measure it by a clap</summary>
    <p class="soft small">
      Record the programme, clap in shot close to the microphone, and find the frame number of the clap,
      counting the first frame as 0.
    </p>
    <div class="asked">
      <label class="field"
        ><span>camera on the programme</span>
        <select v-model="camera">
          <option v-for="picture in late.pictures" :key="picture.device" :value="picture.device">
            {{ picture.camera }}
          </option>
        </select></label
      >
      <label class="field"
        ><span>frame number of the clap</span
        ><input v-model.number="frame" class="num" type="number" min="0" step="1"
      /></label>
      <label class="field"
        ><span>recording of {{ late.label }}</span
        ><input
          type="file"
          accept="audio/*,video/*,.wav,.mov,.mp4"
          :disabled="busy || frame === ''"
          @change="take"
      /></label>
    </div>
    <p v-if="busy" role="status">Reading it…</p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="found" role="status">
      Heard at {{ found.heard_s.toFixed(3) }} s, seen at {{ found.seen_s.toFixed(3) }} s: the sound is
      <strong>{{ Math.abs(found.early_ms).toFixed(0) }} ms {{ found.early_ms < 0 ? 'late' : 'early' }}</strong
      >, ±{{ found.within_ms.toFixed(0) }}.
      <Button v-if="found.camera_frames !== null" size="small" :disabled="job.readOnly" @click="use"
        >Use {{ plainNumber(found.camera_frames) }} frames for
        {{ late.pictures.find(({ device }) => device === camera)?.camera }}</Button
      >
      <template v-else>That would make its picture earlier than it is shot: check the frame number.</template>
    </p>
  </details>
</template>

<style scoped>
summary {
  padding: 0.3rem 0;
  cursor: pointer;
}
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 0.8rem;
  align-items: end;
}
.field input,
.field select {
  width: auto;
}
.num {
  max-width: 8rem;
}
</style>
