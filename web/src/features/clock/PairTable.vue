<script setup lang="ts">
import type { Clock } from '@/api/client'
import { span } from '@/format/time'
import SeverityMark from '@/ui/SeverityMark.vue'

/** By what every camera and every recorder will meet afterwards. */
defineProps<{ pairs: Clock['pairs'] }>()
const heard = (sources: Clock['pairs'][number]['sources']) =>
  sources
    .map(({ source, later_ms: later }) =>
      Math.abs(later) < 0.5
        ? source
        : `${source}, ${Math.abs(later).toFixed(1)} ms ${later > 0 ? 'later' : 'earlier'}`,
    )
    .join('; ')
const METHODS = {
  timecode: 'timecode',
  sound: 'the same sound',
  'camera-microphone': 'the camera’s own microphone',
  clap: 'slate clap only',
}
</script>

<template>
  <section>
    <h3>Sync method in post</h3>
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col">camera</th>
          <th scope="col">recorder</th>
          <th scope="col">method, and a clap besides</th>
          <th scope="col" class="num">one take up to</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="pair in pairs" :key="pair.camera + pair.recorder">
          <th scope="row">{{ pair.camera }}</th>
          <td>{{ pair.recorder }}</td>
          <td>
            <template v-if="pair.by.includes('clap')"
              ><SeverityMark severity="caution" :size="11" /> slate clap only: they record nothing in
              common</template
            >
            <template v-else
              >{{ pair.by.map((method) => METHODS[method]).join(' and ')
              }}<span v-if="pair.sources.length" class="soft">: {{ heard(pair.sources) }}</span
              ><span v-else-if="pair.reach && pair.by.includes('camera-microphone')" class="soft"
                >: {{ pair.reach.source }} within {{ pair.reach.metres.toFixed(0) }} m,
                {{ pair.reach.later_ms.toFixed(0) }} ms late there</span
              ></template
            >
          </td>
          <td class="num">{{ pair.long_take_min === null ? '–' : span(pair.long_take_min) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft small">
      A longer take wants its sound stretched, not only moved: the sample clocks of both have parted by the
      limit.
    </p>
  </section>
</template>

<style scoped>
th[scope='row'] {
  white-space: nowrap;
}
h3 {
  margin-bottom: 0.3rem;
}
</style>
