<script setup lang="ts">
import Button from 'primevue/button'
import { useRouter } from 'vue-router'

import EmptyState from '@/ui/EmptyState.vue'
import KeeperTable from './KeeperTable.vue'
import PairTable from './PairTable.vue'
import SwitcherTable from './SwitcherTable.vue'
import { useClock } from './useClock'

/** Clock: who gives time to whom, by what picture and sound will meet, and how late pictures are. */
const router = useRouter()
const { clock, hours, problem } = useClock()
</script>

<template>
  <EmptyState
    v-if="clock && !clock.keepers.length"
    class="empty"
    title="Nothing keeps time yet"
    text="Cameras, recorders and timecode generators stand here once the job has them: add timecode generator, add mirrorless camera."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Runs</Button>
  </EmptyState>
  <div v-else class="page">
    <header>
      <h2>Clock</h2>
      <p v-if="clock">{{ clock.rate }} frames a second</p>
      <label
        >a day of
        <input v-model.lazy.number="hours" class="plain-input" type="number" min="1" max="48" step="1" />
        h</label
      >
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <template v-if="clock">
      <KeeperTable :keepers="clock.keepers" :hours="clock.hours" />
      <PairTable v-if="clock.pairs.length" :pairs="clock.pairs" />
      <SwitcherTable v-for="item in clock.switchers" :key="item.switcher" :late="item" />
    </template>
    <p class="soft small foot">
      Clocks are taken as bad as their class allows. Read a label from both after an hour, and clap: a plan
      replaces neither.
    </p>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 1.2rem;
  align-content: start;
  padding: 1rem 1.25rem 3rem;
}
.empty {
  margin: 0 1.25rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  align-items: center;
}
header input {
  display: inline-block;
  width: 4.5rem;
}
h2 {
  font-size: 1.2rem;
}
</style>
