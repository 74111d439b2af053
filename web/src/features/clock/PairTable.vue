<script setup lang="ts">
import type { Clock } from '@/api/client'
import SeverityMark from '@/ui/SeverityMark.vue'

/** By what every camera and every recorder will meet afterwards. */
defineProps<{ pairs: Clock['pairs'] }>()
</script>

<template>
  <section>
    <h3>By what they meet afterwards</h3>
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col">camera</th>
          <th scope="col">recorder</th>
          <th scope="col">by</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="pair in pairs" :key="pair.camera + pair.recorder">
          <th scope="row">{{ pair.camera }}</th>
          <td>{{ pair.recorder }}</td>
          <td>
            <template v-if="pair.by.includes('a clap alone')"
              ><SeverityMark severity="caution" :size="11" /> a clap alone: they hear nothing in common. Send
              the camera a feed, or both timecode</template
            >
            <template v-else
              >{{ pair.by.join(' and ')
              }}<span v-if="pair.sources.length" class="soft">: {{ pair.sources.join(', ') }}</span
              >; clap besides</template
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
