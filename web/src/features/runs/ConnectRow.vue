<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import { useJob } from '@/stores/job'
import { useConnect } from './useConnect'

/** Connect by hand: two sockets from menus, or clicked among those that are free; the answers are those of a typed line. */
const job = useJob()
const { sockets, answer, from, to, length, take, problem } = useConnect()
const isOpen = ref(false)
const free = computed(() =>
  sockets.value.filter(({ inputs, outputs }) => [...inputs, ...outputs].some(({ is_free }) => is_free)),
)
const freeSides = ({ inputs, outputs }: (typeof sockets.value)[number]) =>
  [
    { label: 'in', sockets: inputs.filter(({ is_free }) => is_free), chosen: to },
    { label: 'out', sockets: outputs.filter(({ is_free }) => is_free), chosen: from },
  ].filter((side) => side.sockets.length)
</script>

<template>
  <details
    v-if="sockets.length"
    class="connect no-print"
    :open="isOpen"
    @toggle="isOpen = ($event.target as HTMLDetailsElement).open"
  >
    <summary>Connect by hand</summary>
    <form @submit.prevent>
      <label class="field">
        <span>From</span>
        <select v-model="from" aria-label="From socket">
          <option value="" disabled>what sends</option>
          <optgroup v-for="item in sockets" :key="item.device" :label="item.label">
            <option
              v-for="socket in item.outputs"
              :key="socket.port"
              :value="`${item.device} ${socket.port}`"
              :disabled="!socket.is_free"
            >
              {{ item.label }}, {{ socket.label }}{{ socket.is_free ? '' : ' (in use)' }}
            </option>
          </optgroup>
        </select>
      </label>
      <label class="field">
        <span>To</span>
        <select v-model="to" aria-label="To socket">
          <option value="" disabled>what receives</option>
          <optgroup v-for="item in sockets" :key="item.device" :label="item.label">
            <option v-for="socket in item.inputs" :key="socket.port" :value="`${item.device} ${socket.port}`">
              {{ item.label }}, {{ socket.label }}{{ socket.is_free ? '' : ' (in use)' }}
            </option>
          </optgroup>
        </select>
      </label>
      <label class="field">
        <span>Length, m</span>
        <input v-model="length" type="number" min="0.1" max="500" step="any" placeholder="usual" />
      </label>
    </form>
    <p v-if="problem || answer?.problem" class="is-caution" role="status">
      {{ problem || answer?.problem }}
    </p>
    <ol v-if="answer?.proposals.length" aria-label="Ways to connect them">
      <li v-for="(proposal, at) in answer.proposals" :key="at">
        <div>
          <strong>{{ proposal.title }}</strong>
          <p v-if="proposal.outcome" class="small">{{ proposal.outcome }}</p>
          <p v-if="proposal.steps.length" class="soft small">{{ proposal.steps.join('; ') }}</p>
        </div>
        <Button :outlined="at > 0" size="small" :disabled="job.readOnly" @click="take(proposal)"
          >Connect</Button
        >
      </li>
    </ol>
    <ul class="free" aria-label="Free sockets">
      <li v-for="item in free" :key="item.device">
        <strong>{{ item.label }}</strong>
        <span v-for="side in freeSides(item)" :key="side.label" class="group">
          <span class="soft small">{{ side.label }}</span>
          <button
            v-for="socket in side.sockets"
            :key="socket.port"
            type="button"
            :aria-pressed="side.chosen.value === `${item.device} ${socket.port}`"
            @click="side.chosen.value = `${item.device} ${socket.port}`"
          >
            {{ socket.label }}
          </button>
        </span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.connect {
  margin-top: 1.4rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--line);
}
summary {
  font-weight: 700;
  cursor: pointer;
}
form {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr)) 7rem;
  gap: 0.7rem;
  padding: 0.6rem 0;
}
.free li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: baseline;
  padding: 0.2rem 0;
}
.group {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: baseline;
}
.free button {
  padding: 0.1rem 0.5rem;
  background: var(--chalk);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  cursor: pointer;
}
.free button[aria-pressed='true'] {
  font-weight: 700;
  border-color: var(--line-strong);
  border-left: 4px solid var(--pin);
}
ol li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 1rem;
  align-items: start;
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
@media (width < 700px) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
