<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import JobList from './JobList.vue'
import RigQuestion from './RigQuestion.vue'
import RigTable from './RigTable.vue'
import { useRigs } from './useRigs'

/** Plan a shoot: a sentence with gaps, or typed, answered with whole rigs; one of them becomes the job. */
const EXAMPLE = 'interview, two people, two lavs on radio, boom, bag recorder, 1 camera mic socket only, once'
const route = useRoute()
const router = useRouter()
const question = computed(() => String(route.query.q ?? ''))
const typed = ref('')
const { answer, isWhole, problem, filled, fill, take } = useRigs(question)

watch(question, (text) => (typed.value = text), { immediate: true })
const ask = (text: string) => void router.push({ query: text.trim() ? { q: text.trim() } : {} })

async function use(approach: string) {
  const job = await take(approach)
  if (job) await router.push({ name: 'runs', params: { job } })
}
</script>

<template>
  <div class="plan">
    <h1 class="visually-hidden">Plan a shoot</h1>
    <RigQuestion
      v-if="answer"
      :gaps="answer.gaps"
      :filled="filled"
      @fill="(id, phrase) => ask(fill(id, phrase))"
    />
    <form class="no-print" @submit.prevent="ask(typed || EXAMPLE)">
      <label class="field">
        <span>Fill the gaps, or type it; what you leave open is answered with what is usual</span>
        <input v-model="typed" maxlength="500" :placeholder="EXAMPLE" autofocus />
      </label>
      <button class="ask" type="submit">Show rigs</button>
    </form>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <ul v-if="answer?.problems.length" aria-label="What could not be answered">
      <li v-for="words in answer.problems" :key="words" class="is-caution">{{ words }}</li>
    </ul>
    <RigTable v-if="question && answer && !problem" :found="answer" :is-whole="isWhole" @use="use" />
    <JobList />
  </div>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1.2rem;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.7rem;
  align-items: end;
}
.ask {
  min-height: 2.3rem;
  padding: 0 1.1rem;
  color: var(--accent-ink);
  background: var(--accent);
  border: 0;
  border-radius: var(--radius);
  cursor: pointer;
}
</style>
