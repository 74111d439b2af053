<script setup lang="ts">
import Button from 'primevue/button'
import { useTemplateRef } from 'vue'

import { addresses } from '@/api/addresses'
import type { EarSession } from '@/api/client'
import { useKeys } from '@/composables/useKeys'

/** A pair of sounds, played and answered by taps or keys; how far it has come. */
const props = defineProps<{ session: EarSession; isBusy: boolean }>()
const emit = defineEmits<{ answer: [which: number]; again: [] }>()
const players = useTemplateRef<HTMLAudioElement[]>('players')
const NAMES = ['First', 'Second'] as const

function play(which: number) {
  players.value?.forEach((audio, number) => {
    audio.pause()
    if (number !== which) return
    audio.currentTime = 0
    void audio.play().catch(() => undefined) // the next press begins it again
  })
}
const choose = (which: number) => {
  if (!props.isBusy) emit('answer', which)
}
useKeys({ a: () => play(0), s: () => play(1), '1': () => choose(0), '2': () => choose(1) })
</script>

<template>
  <template v-if="session.threshold_db === null">
    <p role="status">
      <template v-if="session.was_right !== null"
        ><strong>{{ session.was_right ? 'Right.' : 'Wrong.' }}</strong>
      </template>
      Pair {{ session.trial + 1 }}, {{ session.turns }} of 10 reversals.
    </p>
    <h2>{{ session.question }}</h2>
    <div class="pair">
      <div v-for="(name, which) in NAMES" :key="`${session.trial}-${which}`">
        <audio ref="players" :src="addresses.earSound(session.id, session.trial, which)" preload="auto" />
        <Button outlined :aria-label="`Play the ${name.toLowerCase()}`" @click="play(which)"
          >▶ Play the {{ name.toLowerCase() }}</Button
        >
        <Button :disabled="isBusy" @click="choose(which)">{{ name }}</Button>
      </div>
    </div>
    <p class="soft small">
      Keys: a and s play, 1 and 2 answer. The sounds are never loud; headphones may be.
    </p>
  </template>
  <template v-else>
    <p role="status">
      Threshold: <strong class="num">{{ session.threshold_db }} dB</strong>, from {{ session.trial }} pairs.
      At that difference seven of ten answers are right.
    </p>
    <p><Button :disabled="isBusy" @click="emit('again')">Train again</Button></p>
  </template>
</template>

<style scoped>
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2.5rem;
}
.pair div {
  display: grid;
  gap: 0.6rem;
  min-width: 12rem;
}
</style>
