<script setup lang="ts">
import Button from 'primevue/button'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import type { GearTest } from '@/api/client'
import { formatMoment } from '@/format/time'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import GearTestCard from './GearTestCard.vue'
import { useGearTests } from './useGearTests'

/** Know your own gear: what no manual says of a device, found out step by step, on the real one or in the simulation. */
const props = defineProps<{ device?: string }>()
const job = useJob()
const router = useRouter()
const { devices, tests, told, busy, wrong, problem, answer, send, simulate } = useGearTests()
const chosen = ref('')

const device = computed(
  () =>
    devices.value.find(({ id }) => id === props.device) ??
    devices.value.find((item) => item.tests.some(({ when }) => !when)) ??
    devices.value[0],
)
/** The one that was pointed at; else the first that was never done. */
const open = computed<GearTest | undefined>(
  () =>
    device.value?.tests.find(({ id }) => id === chosen.value) ??
    device.value?.tests.find(({ when }) => !when) ??
    device.value?.tests[0],
)
const doneOf = (some: readonly GearTest[]) => some.filter(({ when }) => when).length

function choose(id: string) {
  chosen.value = ''
  void router.replace({ name: 'gear-tests', params: { device: id } })
}
function next() {
  const some = device.value?.tests ?? []
  const after = some.slice(some.findIndex(({ id }) => id === open.value?.id) + 1)
  chosen.value = (after.find(({ when }) => !when) ?? after[0] ?? some[0])?.id ?? ''
}
const wordsFor = (item: { test: string; words: string } | null) =>
  item && item.test === open.value?.id ? item.words : ''
const card = ref<HTMLElement | null>(null)
/** In the hand the list lies below what it opens. */
watch(chosen, async () => {
  await nextTick()
  card.value?.scrollIntoView({ block: 'nearest' })
})
/** What was answered stays open, so that it can be read. */
function keepOpen() {
  chosen.value = open.value?.id ?? ''
}
</script>

<template>
  <EmptyState
    v-if="tests && !tests.length"
    class="empty"
    title="Nothing to test yet"
    text="Connect a recorder or mixer that sends tone to the device you want to know better. A camera can be tested for its picture delay without."
  >
    <Button @click="router.push({ name: 'runs' })">Go to Connections</Button>
  </EmptyState>
  <div v-else class="page">
    <header>
      <h2>Know your gear</h2>
      <p class="soft">
        What no manual says, found out in a few minutes each. Every answer becomes a measured figure of My
        equipment; in the simulation it is practice, and stays in the job. Headphones low before any tone,
        tone off the ears.
      </p>
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <nav class="devices" aria-label="Devices">
      <ul>
        <li v-for="item in devices" :key="item.id">
          <button type="button" :class="{ here: item.id === device?.id }" @click="choose(item.id)">
            {{ item.label }} <span class="soft num">{{ doneOf(item.tests) }} of {{ item.tests.length }}</span>
          </button>
          <ol v-if="item.id === device?.id">
            <li v-for="test in item.tests" :key="test.id">
              <button type="button" :class="{ here: test.id === open?.id }" @click="chosen = test.id">
                <span class="mark" aria-hidden="true">{{ test.when ? '✓' : '' }}</span>{{ test.title }}
                <span v-if="test.when" class="soft small">{{ formatMoment(test.when) }}</span>
              </button>
            </li>
          </ol>
        </li>
      </ul>
    </nav>
    <div v-if="open" ref="card" class="right">
      <GearTestCard
        :key="open.id"
        :test="open"
        :told="wordsFor(told)"
        :wrong="wordsFor(wrong)"
        :is-busy="busy === open.id"
        @answer="(keepOpen(), answer(open, $event))"
        @send="(file, more) => (keepOpen(), open && send(open, file, more))"
        @simulate="(keepOpen(), simulate(open))"
      />
      <p class="no-print">
        <Button size="small" :disabled="!job.state || Boolean(busy)" @click="next">Next test</Button>
      </p>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 24rem) minmax(0, 1fr);
  gap: 0.8rem 1.8rem;
  align-content: start;
  min-height: 100%;
  padding: 1rem 1.25rem 3rem;
}
.empty {
  margin: 0 1.25rem;
}
header,
.page > p {
  grid-column: 1 / -1;
}
header {
  display: grid;
  gap: 0.2rem;
  max-width: 52rem;
}
h2 {
  font-size: 1.2rem;
}
ul,
ol {
  display: grid;
  gap: 0.1rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.devices button {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 0.6rem;
  align-items: baseline;
  width: 100%;
  min-height: 2.4rem;
  padding: 0.35rem 0.5rem;
  color: var(--ink);
  font: inherit;
  text-align: left;
  background: none;
  border: 0;
  border-left: 3px solid transparent;
  cursor: pointer;
}
.devices > ul > li > button {
  justify-content: space-between;
  font-weight: 700;
}
.devices .here {
  border-left-color: var(--pin);
  background: var(--sheet);
}
.mark {
  width: 1rem;
}
.right {
  display: grid;
  gap: 0.8rem;
  align-content: start;
}
@media (width < 900px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  /* In the hand what is to be done comes before what else there is. */
  .devices {
    order: 1;
  }
}
</style>
