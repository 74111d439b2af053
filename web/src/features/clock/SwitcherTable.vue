<script setup lang="ts">
import type { Clock } from '@/api/client'
import { plainNumber } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** How late the pictures of a switcher are, and what sound asks for that comes to it straight. */
defineProps<{ late: Clock['switchers'][number] }>()
</script>

<template>
  <section>
    <h3>Late pictures at {{ late.switcher }}</h3>
    <p>
      <SeverityMark v-if="late.is_noticed" :severity="late.is_accepted ? 'note' : 'caution'" :size="12" />
      Sound that comes to it straight is early by {{ plainNumber(late.late_frames) }} frames. Delay it by
      <strong>{{ late.delay_ms.toFixed(1) }} ms</strong>, {{ late.delay_samples }} samples; sound that comes
      with its picture needs none.
    </p>
    <ul>
      <li v-for="picture in late.pictures" :key="picture.camera">
        {{ picture.camera }}: {{ plainNumber(picture.late_frames) }} frames late<template
          v-if="picture.hold_frames"
          >; hold it back by {{ plainNumber(picture.hold_frames) }} more, to be as late as the
          latest</template
        >
      </li>
      <li>{{ late.switcher }} itself: {{ plainNumber(late.own_frames) }} frames</li>
    </ul>
  </section>
</template>

<style scoped>
h3 {
  margin-bottom: 0.3rem;
}
ul {
  padding: 0.3rem 0 0 1.2rem;
  list-style: disc;
}
</style>
