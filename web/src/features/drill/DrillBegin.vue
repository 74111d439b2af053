<script lang="ts">
import type { DrillAsked } from '@/api/client'

/** What is asked of a new drill. */
export type DrillChoice = Pick<DrillAsked, 'level' | 'kind' | 'example' | 'most'> & {
  readonly inJob: boolean
}
</script>

<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { RouteLocationRaw } from 'vue-router'

import type { Example, Training } from '@/api/client'
import { formatMoment } from '@/format/time'

/** A new drill, by chance or by a number that somebody has called out; what is to be practised, and what was played. */
const props = defineProps<{
  training: Training | null
  examples: readonly Example[]
  hasJob: boolean
  isBusy: boolean
  at: (id: string) => RouteLocationRaw
}>()
const emit = defineEmits<{ draw: [seed: number | null, asked: DrillChoice] }>()
const LEVELS = [
  ['first-day', 'first day'],
  ['unit', 'small unit'],
  ['night-shoot', 'night shoot'],
] as const
const number = ref('')
const rig = ref('unit')
const isTwo = ref(false)
const seed = computed(() => (/^\d{1,6}$/.test(number.value.trim()) ? Number(number.value) : null))
const isWrong = computed(() => Boolean(number.value.trim()) && seed.value === null)
const due = computed(() => props.training?.kinds.filter(({ is_due: isDue }) => isDue) ?? [])
function draw(inJob: boolean, kind = '') {
  const level = LEVELS.find(([id]) => id === rig.value)?.[0]
  const example = level || inJob || kind ? '' : rig.value
  emit('draw', seed.value, {
    level: level ?? 'unit',
    example,
    kind,
    most: isTwo.value && !kind ? 2 : 1,
    inJob,
  })
}
const told = (score: number | null | undefined) =>
  score === null || score === undefined ? ', not answered yet' : `, ${score} of 100`
</script>

<template>
  <p>
    Something may be wrong in the rig: a switch, a knob, a cable, a plug, a clock. Look, listen and try; each
    takes its time. Say what it is as soon as you are sure. Sometimes nothing is wrong.
  </p>
  <form class="form-row" @submit.prevent="draw(false)">
    <label class="field"
      ><span>Number, for the same drill as others</span
      ><input v-model="number" class="plain-input num" inputmode="numeric" maxlength="6" placeholder="any"
    /></label>
    <label class="field"
      ><span>Rig</span
      ><select v-model="rig">
        <option v-for="[id, label] in LEVELS" :key="id" :value="id">{{ label }}</option>
        <option v-for="one in examples" :key="one.id" :value="one.id">example: {{ one.title }}</option>
      </select></label
    >
    <label class="check"><input v-model="isTwo" type="checkbox" /> Up to two faults</label>
    <Button type="submit" :disabled="isBusy || isWrong">Draw a rig</Button>
    <Button v-if="hasJob" outlined :disabled="isBusy || isWrong" @click="draw(true)"
      >Hide a fault in this job</Button
    >
  </form>
  <p><RouterLink to="/ear">Ear training</RouterLink>: which of two has more hum, hiss, clipping, bleed.</p>
  <p v-if="isWrong" class="is-stop small" role="alert">A drill has a number from 0 to 999999.</p>
  <p v-if="due[0]">
    <Button size="small" outlined :disabled="isBusy" @click="draw(false, due[0].kind)"
      >Practise what is due: {{ due.length }} {{ due.length === 1 ? 'kind' : 'kinds' }}</Button
    >
    <span class="soft"> Missed or slow comes back at once, found well after days.</span>
  </p>
  <section v-if="training?.kinds.length" aria-label="Progress">
    <h3>Progress</h3>
    <ul class="kinds">
      <li v-for="one in training.kinds" :key="one.kind">
        {{ one.label }}: <strong class="num">{{ one.found }}</strong> in a row<span class="soft"
          >, played {{ one.played }} {{ one.played === 1 ? 'time' : 'times' }}</span
        >
      </li>
    </ul>
  </section>
  <section v-if="training?.side_by_side.length" aria-label="Side by side">
    <h3>Side by side</h3>
    <ul>
      <li v-for="one in training.side_by_side.slice(0, 6)" :key="one.seed">
        {{ one.title }}, number {{ one.seed }}:
        <span v-for="(result, place) in one.results" :key="result.who"
          >{{ place ? ', ' : '' }}{{ result.who }} <strong class="num">{{ result.score }}</strong></span
        >
      </li>
    </ul>
  </section>
  <section v-if="training?.played.length" aria-label="Drills that were played">
    <h3>Played</h3>
    <ul>
      <li v-for="one in training.played.slice(0, 20)" :key="one.id">
        <RouterLink :to="at(one.id)">{{ one.title }}, number {{ one.seed }}</RouterLink>
        <span class="soft"
          >, {{ one.who ? `${one.who}, ` : '' }}{{ formatMoment(one.begun) }}{{ told(one.score) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.5rem;
}
</style>
