<script setup lang="ts">
import { nextTick, onMounted, useTemplateRef, watch } from 'vue'

/** Plays a point of the bench over and over; when something changes it goes on from the same place. */
const props = defineProps<{ src: string }>()
const QUIET = 0.25
const player = useTemplateRef<HTMLAudioElement>('player')
onMounted(() => player.value && (player.value.volume = QUIET))
watch(
  () => props.src,
  async () => {
    const audio = player.value
    if (!audio) return
    const [was, at] = [!audio.paused, audio.currentTime]
    await nextTick()
    audio.load()
    if (!was) return
    audio.currentTime = at
    await audio.play().catch(() => undefined) // the next press of play begins it again
  },
)
</script>

<template>
  <p class="line no-print">
    <audio ref="player" :src="src" controls loop preload="none" aria-label="What is heard at this point" />
    <a :href="src" download="bench.wav">Save as WAV</a>
    <span class="soft small">Set headphones low first; tone off the ears.</span>
  </p>
</template>

<style scoped>
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
