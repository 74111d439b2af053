<script setup lang="ts">
import { nextTick, onMounted, useTemplateRef, watch } from 'vue'

/** Plays a sound over and over, quietly at first; when it changes it goes on from the same place. */
const props = defineProps<{ src: string; name: string; label: string; quiet: number }>()
const player = useTemplateRef<HTMLAudioElement>('player')
onMounted(() => player.value && (player.value.volume = props.quiet))
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
    <audio ref="player" :src="src" controls loop preload="none" :aria-label="label" />
    <a :href="src" :download="name">Save as WAV</a>
    <slot />
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
