<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { RouteLocationRaw } from 'vue-router'

import type { PlayedDrill } from '@/api/client'
import { formatMoment } from '@/format/time'

/** A new drill, by chance or by a number that somebody has called out; and those that were played. */
defineProps<{
  played: readonly PlayedDrill[]
  hasJob: boolean
  isBusy: boolean
  at: (id: string) => RouteLocationRaw
}>()
const emit = defineEmits<{ draw: [seed: number | null, inJob: boolean] }>()
const number = ref('')
const seed = computed(() => (/^\d{1,6}$/.test(number.value.trim()) ? Number(number.value) : null))
const isWrong = computed(() => Boolean(number.value.trim()) && seed.value === null)
</script>

<template>
  <p>
    One thing may be wrong in the rig: a switch, a knob, a cable, a plug. Look, listen and try; each takes its
    time. Say what it is as soon as you are sure. Sometimes nothing is wrong.
  </p>
  <form class="form-row" @submit.prevent="emit('draw', seed, false)">
    <label class="field"
      ><span>Number, for the same drill as others</span
      ><input v-model="number" class="plain-input num" inputmode="numeric" maxlength="6" placeholder="any"
    /></label>
    <Button type="submit" :disabled="isBusy || isWrong">Draw a rig</Button>
    <Button v-if="hasJob" outlined :disabled="isBusy || isWrong" @click="emit('draw', seed, true)"
      >Hide a fault in this job</Button
    >
  </form>
  <p v-if="isWrong" class="is-stop small" role="alert">A drill has a number from 0 to 999999.</p>
  <section v-if="played.length" aria-label="Drills that were played">
    <h3>Played</h3>
    <ul>
      <li v-for="one in played.slice(0, 20)" :key="one.id">
        <RouterLink :to="at(one.id)">{{ one.title }}, number {{ one.seed }}</RouterLink>
        <span class="soft"
          >, {{ formatMoment(one.begun)
          }}{{ one.score === null ? ', not answered yet' : `, ${one.score} of 100` }}</span
        >
      </li>
    </ul>
  </section>
</template>
