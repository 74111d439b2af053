<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import JoinedWay from './JoinedWay.vue'
import { useTwoThings } from './useTwoThings'

/** Connect two things: from, to and a distance, answered with the cable, the settings and what could go wrong. The address
 * keeps the question, so that it can be sent to somebody. */
const route = useRoute()
const router = useRouter()
const asked = (name: string) => String(route.query[name] ?? '')
const fill = (name: string, value: string) =>
  void router.replace({ query: { ...route.query, ...CLEARS[name], [name]: value || undefined } })
/** Another device has other sockets. */
const CLEARS: Record<string, Record<string, undefined>> = { from: { out: undefined }, to: { in: undefined } }

const ends = computed(() =>
  asked('from') && asked('to')
    ? {
        sending: asked('from'),
        receiving: asked('to'),
        output: asked('out'),
        input: asked('in'),
        length_m: Number(asked('m')) > 0 ? Number(asked('m')) : null,
      }
    : null,
)
const { kinds, answer, busy, problem, take } = useTwoThings(() => ends.value)
const sides = computed(() => [
  {
    label: 'From',
    name: 'from',
    hint: 'what sends',
    socket: 'out',
    verb: 'sends',
    sockets: answer.value?.outputs,
  },
  {
    label: 'To',
    name: 'to',
    hint: 'what receives',
    socket: 'in',
    verb: 'receives',
    sockets: answer.value?.inputs,
  },
])

async function use(number: number) {
  const job = await take(number)
  if (job) await router.push({ name: 'runs', params: { job } })
}
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <div class="connect">
    <h1 class="visually-hidden">Connect two things</h1>
    <form @submit.prevent>
      <template v-for="{ label, name, hint, socket, verb, sockets } in sides" :key="name">
        <label class="field">
          <span>{{ label }}</span>
          <select
            :autofocus="name === 'from'"
            :aria-label="label"
            :value="asked(name)"
            @change="fill(name, value($event))"
          >
            <option value="" disabled>{{ hint }}</option>
            <optgroup v-for="[kind, classes] in kinds" :key="kind" :label="kind">
              <option v-for="item in classes" :key="item.id" :value="item.id">{{ item.label }}</option>
            </optgroup>
          </select>
        </label>
        <label class="field">
          <span>Socket</span>
          <select
            :aria-label="`Socket that ${verb}`"
            :disabled="!answer"
            :value="asked(socket)"
            @change="fill(socket, value($event))"
          >
            <option value="">any that fits</option>
            <option v-for="item in sockets" :key="item" :value="item">{{ item }}</option>
          </select>
        </label>
      </template>
      <label class="field">
        <span>Distance, m</span>
        <input
          type="number"
          min="0.1"
          max="500"
          step="any"
          placeholder="usual"
          :value="asked('m')"
          @change="fill('m', value($event))"
        />
      </label>
    </form>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="answer?.problem" class="is-caution" role="status">{{ answer.problem }}</p>
    <ol v-if="ends && answer" aria-label="Ways to connect them" :aria-busy="busy">
      <li v-for="(way, at) in answer.ways" :key="at">
        <JoinedWay :way="way" :is-first="at === 0" @use="use(at)" />
      </li>
    </ol>
    <p v-else-if="!problem" class="soft">
      Choose what sends and what receives: a microphone and a camera, a recorder and a camera, a receiver and
      a mixer.
    </p>
  </div>
</template>

<style scoped>
.connect,
ol {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1.2rem;
}
form {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 1fr) minmax(0, 2fr) minmax(0, 1fr) 7rem;
  gap: 0.7rem;
}
@media (width < 700px) {
  form {
    grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  }
}
</style>
