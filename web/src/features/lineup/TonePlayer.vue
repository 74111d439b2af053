<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'

import { api } from '@/api/client'

/** The job's line-up tone: played quietly at first, or taken along as a file. */
const props = defineProps<{ job: string; level: string }>()
const QUIET = 0.05
const player = useTemplateRef<HTMLAudioElement>('player')
onMounted(() => player.value && (player.value.volume = QUIET))
</script>

<template>
  <section class="no-print">
    <h3>Tone</h3>
    <p class="small">
      1 kHz at {{ level }} dBFS, the left side interrupted every 3 s, so that a crossed pair is heard. From
      this machine it starts quiet: headphones off the ears, speakers down, then bring it up.
    </p>
    <p class="line">
      <audio
        ref="player"
        :src="api.toneAddress(props.job)"
        controls
        preload="none"
        loop
        aria-label="Line-up tone"
      />
      <a :href="api.toneAddress(props.job)" download="tone.wav">Save it as a file</a>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.3rem;
}
h3 {
  font-size: 1.05rem;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
}
audio {
  height: 2.3rem;
}
</style>
