<script setup lang="ts">
import type { GainPlan, TrackFigures } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** Every recorded track before and after. */
defineProps<{ tracks: GainPlan['tracks']; traced: string }>()
const emit = defineEmits<{ trace: [track: string] }>()
const words = (figures: TrackFigures) =>
  figures.clip_db ? `clips by ${formatLevel(figures.clip_db)} dB` : formatLevel(figures.peak_dbfs)
</script>

<template>
  <div class="scrolls">
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col">track</th>
          <th scope="col" class="num">average</th>
          <th scope="col" class="num">then</th>
          <th scope="col" class="num">peak</th>
          <th scope="col" class="num">then</th>
          <th scope="col" class="num">noise then</th>
          <th scope="col">a burst then</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="{ track, label, before, after } in tracks"
          :key="track"
          :class="{ traced: track === traced }"
        >
          <th scope="row">
            <button
              type="button"
              class="trace"
              :aria-pressed="track === traced"
              @click="emit('trace', track)"
            >
              {{ label }}
            </button>
          </th>
          <td class="num soft">{{ formatLevel(before.average_dbfs) }}</td>
          <td class="num">
            <strong>{{ formatLevel(after.average_dbfs) }}</strong>
          </td>
          <td class="num" :class="before.clip_db ? 'is-stop' : 'soft'">{{ words(before) }}</td>
          <td class="num" :class="{ 'is-stop': after.clip_db }">
            <strong>{{ words(after) }}</strong>
          </td>
          <td class="num">{{ formatLevel(after.noise_dbfs) }}</td>
          <td :class="{ 'is-caution': after.burst_clip_db }">
            {{ after.burst_clip_db ? `clips by ${formatLevel(after.burst_clip_db)} dB` : 'fits' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.trace {
  padding: 0.15rem 0;
  font: inherit;
  color: inherit;
  text-align: left;
  text-decoration: underline;
  cursor: pointer;
  background: none;
  border: 0;
}
.traced {
  background: var(--chalk);
}
</style>
