<script setup lang="ts">
import Button from 'primevue/button'
import { computed, nextTick, ref, watch } from 'vue'

import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import OnThePhone from './OnThePhone.vue'
import WalkRow from './WalkRow.vue'
import { useWalk } from './useWalk'
import { formatMoment } from '@/format/time'

/** The signal walk, in the hand: one thing after the other, two large buttons under the thumb. */
const job = useJob()
const { walks, walk, waiting, problem, isCut, isBusy, mark, begin, open } = useWalk()
const all = computed(() => walk.value?.groups.flatMap(({ items }) => items) ?? [])
const chosen = ref('')
/** The one that was pointed at; else the first that nobody has looked at. */
const here = computed(
  () => all.value.find(({ id }) => id === chosen.value) ?? all.value.find((item) => item.mark === 'open'),
)
/** What must be so, and at which devices: in a line that is read at a glance, and the names below it. */
const what = computed(() => {
  const [must = '', ...where] = (here.value?.text ?? '').split(/(?<=:) /)
  return { must, where: where.join(' ') }
})
const place = computed(() =>
  walk.value?.groups.find(({ items }) => items.some(({ id }) => id === here.value?.id)),
)
const isOld = computed(
  () => walk.value !== null && job.newest !== null && walk.value.revision !== job.newest.revision,
)

function choose(id: string) {
  const wanted = walks.value?.find((item) => item.id === id)
  if (wanted) open(wanted)
}

function say(wanted: 'good' | 'fault' | 'open') {
  if (!here.value) return
  mark(here.value.id, wanted)
  chosen.value = ''
}
watch(
  () => here.value?.id,
  async (id) => {
    await nextTick()
    if (id) document.getElementById(`walk-${id}`)?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <EmptyState
    v-if="walks && !walk"
    class="empty"
    title="Check the chain before the first take"
    text="From the microphones to the last track: powered, switches as planned, strain relief fitted, listened to, played back. One forgotten switch ruins a day."
  >
    <div class="starts">
      <Button :loading="isBusy" @click="begin(true)">Start the short checklist</Button>
      <Button outlined :loading="isBusy" @click="begin(false)">Start the full checklist</Button>
    </div>
    <p class="soft small">Short: at most 15 lines, the ones that ruin takes. Full: every switch and cable.</p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
  </EmptyState>
  <div v-else-if="walk" class="page">
    <header>
      <h2>Checklist</h2>
      <p role="status">
        {{ walk.good }} of {{ walk.count }} good<template v-if="walk.faults"
          >,
          <strong class="is-stop"
            >{{ walk.faults }} {{ walk.faults === 1 ? 'fault' : 'faults' }}</strong
          ></template
        >
      </p>
      <select
        class="plain-input no-print"
        aria-label="Which checklist"
        :value="walk.id"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="item in walks" :key="item.id" :value="item.id">
          {{ formatMoment(item.created) }}
        </option>
      </select>
      <span class="only-print">{{ formatMoment(walk.created) }}</span>
      <Button class="no-print" size="small" outlined :loading="isBusy" @click="begin(true)"
        >New, short</Button
      >
      <Button class="no-print" size="small" outlined :loading="isBusy" @click="begin(false)"
        >New, full</Button
      >
    </header>
    <p v-if="isCut || waiting.length" class="is-caution" role="status">
      <template v-if="isCut">No connection. </template>{{ waiting.length }}
      {{ waiting.length === 1 ? 'mark waits' : 'marks wait' }} here and will be delivered.
    </p>
    <p v-if="isOld" class="is-note small">
      The plan has changed since this checklist was made: start a new one.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <section v-for="group in walk.groups" :key="group.label">
      <h3>{{ group.label }}</h3>
      <ul>
        <WalkRow
          v-for="item in group.items"
          :key="item.id"
          :item="item"
          :here="item.id === here?.id"
          @choose="chosen = item.id"
        />
      </ul>
    </section>
    <OnThePhone />
    <footer class="no-print" aria-label="The next thing to look at">
      <template v-if="here">
        <p>
          <span class="soft small">{{ place?.label }}</span>
          <strong>{{ what.must }}</strong>
          <span v-if="what.where">{{ what.where }}</span>
          <span v-if="here.why" class="small">{{ here.why }}</span>
        </p>
        <div class="buttons">
          <button v-if="here.mark !== 'open'" type="button" data-repeats class="back" @click="say('open')">
            Undo
          </button>
          <button type="button" data-repeats class="fault" @click="say('fault')">Fault</button>
          <button type="button" data-repeats class="good" @click="say('good')">Good</button>
        </div>
      </template>
      <p v-else-if="walk.faults">
        <strong
          >All looked at. {{ walk.faults === 1 ? 'One fault is' : `${walk.faults} faults are` }} left: fix,
          then mark.</strong
        >
      </p>
      <p v-else><strong>All checked, all good. Keep listening.</strong></p>
    </footer>
  </div>
</template>

<style scoped>
.starts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
}
.page {
  display: grid;
  gap: 0.6rem;
  align-content: start;
  max-width: 46rem;
  min-height: 100%;
  padding: 0.8rem 1rem 0;
}
.empty {
  margin: 0 1.25rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
  align-items: center;
}
h2 {
  font-size: 1.2rem;
}
h3 {
  padding: 0.4rem 0 0.2rem;
}
header select {
  width: auto;
  min-height: 44px;
}
.only-print {
  display: none;
}
footer {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 0.6rem;
  margin: 0.6rem -1rem 0;
  padding: 0.7rem 1rem 0.9rem;
  background: var(--sheet);
  border-top: 2px solid var(--line-strong);
}
footer p {
  display: grid;
  gap: 0.15rem;
}
footer strong {
  font-size: 1.1rem;
}
.buttons {
  display: flex;
  gap: 0.6rem;
}
.buttons button {
  flex: 1;
  min-height: 60px;
  font-size: 1.15rem;
  font-weight: 700;
  background: var(--chalk);
  border: 2px solid var(--line-strong);
  border-radius: var(--radius);
  cursor: pointer;
}
.buttons .good {
  flex: 2;
  color: var(--accent-ink);
  background: var(--accent);
  border-color: var(--accent);
}
.buttons .fault {
  color: var(--stop);
  border-color: var(--stop);
}
@media print {
  .only-print {
    display: inline;
  }
}
</style>
