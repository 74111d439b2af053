<script setup lang="ts">
import { addresses } from '@/api/addresses'
import SoundPlayer from '@/ui/SoundPlayer.vue'

/** The job's line-up tone: played quietly at first, or taken along as a file. */
defineProps<{ job: string; level: string }>()
</script>

<template>
  <section class="no-print">
    <h3>Tone</h3>
    <p class="small">
      1 kHz at {{ level }} dBFS, the left side interrupted every 3 s, so that a crossed pair is heard. From
      this machine it starts quiet: headphones off the ears, speakers down, then bring it up.
    </p>
    <SoundPlayer :src="addresses.tone(job)" name="tone.wav" label="Line-up tone" :quiet="0.05" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.3rem;
}
</style>
