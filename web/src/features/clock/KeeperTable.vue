<script setup lang="ts">
import { computed } from 'vue'

import type { Clock } from '@/api/client'
import { plainNumber } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** Who keeps time, from whom each gets it, and how long it stays right on its own. */
const props = defineProps<{ keepers: Clock['keepers']; hours: number }>()
/** Where nobody gives time at all, that is a way to work, and no fault of one device. */
const some = computed(() => props.keepers.some(({ gets }) => gets !== 'from nobody'))
const every = (hours: number) =>
  hours >= 1 ? `${plainNumber(Number(hours.toPrecision(2)))} h` : `${Math.floor(hours * 60)} min`
</script>

<template>
  <section>
    <h3>Who gives time to whom</h3>
    <p v-if="!some" class="soft">
      Nobody gives timecode: picture and sound meet by what both hear, and by claps.
    </p>
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col">device</th>
          <th scope="col">its time</th>
          <th scope="col" class="num">clock, ppm</th>
          <th scope="col">on its own over {{ plainNumber(hours) }} h</th>
          <th scope="col">jam again</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="keeper in keepers" :key="keeper.device">
          <th scope="row">{{ keeper.label }}</th>
          <td>
            <template v-if="keeper.gets === 'gives it'">gives it to the others</template>
            <template v-else-if="keeper.gets === 'by its timecode socket'">from {{ keeper.giver }}</template>
            <template v-else-if="keeper.gets === 'as sound on a track'"
              >from {{ keeper.giver }}, as sound on {{ keeper.track }}: its neighbour is scratch at
              best</template
            >
            <template v-else
              ><SeverityMark v-if="some && keeper.has_socket" severity="caution" :size="11" /> from nobody{{
                keeper.has_socket ? '; it has a socket for it' : ''
              }}</template
            >
          </td>
          <td class="num">{{ keeper.ppm === null ? '–' : `±${plainNumber(keeper.ppm)}` }}</td>
          <td>
            <template v-if="keeper.parts_ms !== null"
              >up to {{ keeper.parts_ms.toFixed(0) }} ms,
              {{ keeper.parts_frames!.toFixed(1) }} frames</template
            >
            <template v-else>–</template>
          </td>
          <td>
            <template v-if="keeper.rejam_every_h !== null"
              >every <strong>{{ every(keeper.rejam_every_h) }}</strong>, unless it stays on the lead</template
            >
            <template v-if="keeper.gets === 'by its timecode socket' && keeper.forgets"
              >, and after every battery</template
            >
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h3 {
  margin-bottom: 0.3rem;
}
</style>
