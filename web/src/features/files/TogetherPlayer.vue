<script setup lang="ts">
import { ref } from 'vue'

import { addresses } from '@/api/addresses'
import type { DayFiles } from '@/api/client'
import SoundPlayer from '@/ui/SoundPlayer.vue'

/** A camera's guide and the recorder's sound in one: an echo says that they are apart. */
defineProps<{
  job: string
  take: string
  pair: NonNullable<NonNullable<DayFiles['found']>['takes'][number]['together']>[number]
}>()
const byEar = ref(false)
</script>

<template>
  <section class="together no-print" :aria-label="`${pair.title}, played together`">
    <p>
      <strong>{{ take }}, {{ pair.title }}</strong
      >: {{ pair.words }}.
    </p>
    <label v-if="pair.off_ms !== null"
      ><input v-model="byEar" type="checkbox" /> laid as both are heard, not by timecode</label
    >
    <SoundPlayer
      :src="addresses.together(job, pair.picture, byEar)"
      name="together.wav"
      label="Guide and recorder together"
      :quiet="0.3"
      ><span class="soft small"
        >12 s in which most is heard, as the edit will lay them. One voice: together. An echo: apart. Set
        headphones low first.</span
      ></SoundPlayer
    >
  </section>
</template>

<style scoped>
.together {
  display: grid;
  gap: 0.4rem;
}
</style>
