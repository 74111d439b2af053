<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import { addresses } from '@/api/addresses'
import type { Drill } from '@/api/client'
import SoundPlayer from '@/ui/SoundPlayer.vue'
import DrillDrawn from './DrillDrawn.vue'

/** What can be done on the set, what it has shown so far, and the answer. Nothing else of the rig is told. */
const props = defineProps<{
  drill: Drill
  groups: readonly (readonly [string, Drill['probes']])[]
  isBusy: boolean
}>()
const emit = defineEmits<{ look: [probe: string]; answer: [answer: string, givesUp: boolean] }>()
const chosen = ref('-')
const counts = computed(() => {
  const found = new Map<string, number>()
  for (const { probe } of props.drill.seen) found.set(probe, (found.get(probe) ?? 0) + 1)
  return found
})
const newest = computed(() => [...props.drill.seen].reverse())
function answer() {
  emit('answer', chosen.value, false)
  chosen.value = '-'
}
</script>

<template>
  <div class="parts">
    <section aria-label="What you can do">
      <h3>The rig</h3>
      <p>{{ drill.devices.join(' · ') }}</p>
      <ul class="small soft">
        <li v-for="cable in drill.cables" :key="cable">{{ cable }}</li>
      </ul>
      <template v-if="!drill.judged">
        <p class="soft small">A look takes 0.3 min.</p>
        <div v-for="[name, probes] in groups" :key="name" class="group">
          <h4>{{ name }}</h4>
          <div>
            <Button
              v-for="probe in probes"
              :key="probe.id"
              size="small"
              outlined
              data-repeats
              :disabled="isBusy"
              :aria-label="`${probe.label}, ${probe.minutes} min`"
              :title="`${probe.label}, ${probe.minutes} min`"
              @click="emit('look', probe.id)"
              >{{ probe.short
              }}<span v-if="probe.minutes >= 0.5" class="num soft small">{{ probe.minutes }} min</span
              ><span v-if="counts.get(probe.id)" aria-hidden="true"> ✓</span></Button
            >
          </div>
        </div>
      </template>
    </section>
    <section aria-label="What it showed">
      <form v-if="!drill.judged" class="form-row answer" @submit.prevent="answer">
        <label class="field"
          ><span>What is wrong?</span
          ><select v-model="chosen">
            <option value="-" disabled>choose when you are sure</option>
            <option v-for="one in drill.answers" :key="one.id" :value="one.id">{{ one.label }}</option>
          </select></label
        >
        <Button type="submit" :disabled="isBusy || chosen === '-'">Give this answer</Button>
        <Button text size="small" :disabled="isBusy" @click="emit('answer', '', true)"
          >Show the answer</Button
        >
      </form>
      <p v-for="(one, number) in drill.judged ? [] : drill.wrong" :key="number" class="is-stop" role="alert">
        Wrong: {{ one }}. One take lost, 5 min.
      </p>
      <h3>Observations</h3>
      <p v-if="!newest.length" class="soft">Nothing yet. Only what you look at is shown.</p>
      <ol>
        <li v-for="(one, number) in newest" :key="newest.length - number">
          <strong>{{ one.label }}</strong>
          <template v-if="one.sounds.length">
            <p class="soft small">Set headphones low first.</p>
            <SoundPlayer
              v-for="(name, track) in one.sounds"
              :key="name"
              :src="addresses.drillSound(drill.id, one.probe, track)"
              :name="`drill-${drill.seed}.wav`"
              :label="name"
              :quiet="0.3"
              ><span class="small">{{ name }}</span></SoundPlayer
            >
            <details class="small">
              <summary>In words</summary>
              <ul>
                <li v-for="line in one.lines" :key="line">{{ line }}</li>
              </ul>
            </details>
          </template>
          <ul v-else>
            <li v-for="(line, place) in one.lines" :key="place" class="told">
              <DrillDrawn v-if="one.drawn[place]" :drawn="one.drawn[place]" /><span>{{ line }}</span>
            </li>
          </ul>
        </li>
      </ol>
    </section>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem 2.5rem;
}
section {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}
.group {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr);
  gap: 0.4rem;
}
.group div {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
h4 {
  margin: 0;
  padding-top: 0.4rem;
}
section + section {
  position: sticky;
  top: 0.5rem;
  max-height: 100vh;
  overflow: auto;
}
.group :deep(button) {
  text-align: left;
}
.answer .field {
  flex: 1 1 14rem;
}
ol {
  display: grid;
  gap: 0.8rem;
  padding: 0;
  list-style: none;
}
ol ul {
  padding-left: 1rem;
}
.told {
  display: grid;
  grid-template-columns: 4.5rem minmax(0, 1fr);
  gap: 0.6rem;
  align-items: center;
}
.told > span:only-child {
  grid-column: 1 / -1;
}
@media (width < 700px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  section + section {
    position: static;
    max-height: none;
    order: -1; /* what was seen last is read first */
  }
}
</style>
