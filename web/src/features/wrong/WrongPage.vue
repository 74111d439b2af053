<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { useRoute } from 'vue-router'

import { useJob } from '@/stores/job'
import { useFaultSearch } from './useFaultSearch'

/** What is wrong? A symptom, chosen or typed, and the shortest order of search through this plan. */
const SYMPTOMS = [
  ['hum', 'Hum or buzz'],
  ['hiss', 'Hiss'],
  ['distorted', 'Distorted'],
  ['quiet', 'Too quiet, or silent'],
  ['one-side', 'One side missing'],
  ['meters', 'Meters differ'],
  ['out-of-sync', 'Out of sync'],
  ['dropouts', 'Dropouts or crackle'],
] as const
const ANSWERS = { true: 'yes', false: 'no', null: 'cannot tell' }
const job = useJob()
// A note of the log leads here with what it says, and on which track.
const { query } = useRoute()
const said = (value: unknown) => (typeof value === 'string' ? value : '')
const { found, problem, symptom, text, track, tracks, given, answer, back } = useFaultSearch({
  symptom: said(query.symptom),
  track: said(query.track),
})
const typed = ref('')

function choose(id: string) {
  text.value = ''
  symptom.value = id
}
function say() {
  symptom.value = ''
  text.value = typed.value.trim()
}
const percent = (share: number) => (share < 0.01 ? '<1 %' : `${Math.round(share * 100)} %`)
</script>

<template>
  <div class="page">
    <header>
      <h2>What is wrong?</h2>
      <label class="field"
        ><span>Where it is heard</span>
        <select v-model="track">
          <option value="">at the end of the chain</option>
          <option v-for="item in tracks" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select>
      </label>
    </header>
    <div class="symptoms" role="group" aria-label="What it sounds like">
      <button
        v-for="[id, label] in SYMPTOMS"
        :key="id"
        type="button"
        :aria-pressed="found?.symptom === id"
        @click="choose(id)"
      >
        {{ label }}
      </button>
    </div>
    <form @submit.prevent="say">
      <label class="field"
        ><span>Or say it</span>
        <input v-model="typed" maxlength="200" placeholder="hum on the camera alone" />
      </label>
      <Button type="submit" outlined :disabled="!typed.trim()">Search</Button>
    </form>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <section v-if="found?.next" class="next" aria-label="Try this next">
      <h3>{{ given.length ? 'Next' : 'First' }}: {{ found.next.does }}</h3>
      <p>{{ found.next.asks }}</p>
      <p class="answers">
        <Button @click="answer(true)">Yes</Button>
        <Button @click="answer(false)">No</Button>
        <Button outlined @click="answer(null)">Cannot tell</Button>
        <Button v-if="given.length" text @click="back">Back one answer</Button>
      </p>
    </section>
    <section v-if="found?.cause" class="next" aria-label="Cause">
      <h3>{{ found.cause.title }}</h3>
      <p>{{ found.cause.fix }}</p>
      <p v-if="found.cause.edits" class="answers">
        <Button :disabled="job.readOnly" @click="job.edit(found.cause.edits.edits)">{{
          found.cause.edits.label
        }}</Button>
      </p>
      <p class="soft">For the log: {{ found.cause.log }}</p>
      <Button v-if="given.length" text @click="back">Back one answer</Button>
    </section>
    <div v-if="found" class="state">
      <section v-if="given.length">
        <h3>Answers so far</h3>
        <ol>
          <li v-for="(item, at) in given" :key="at">
            {{ item.asked }} <strong>{{ ANSWERS[`${item.yes}`] }}</strong>
          </li>
        </ol>
      </section>
      <section>
        <h3>Still possible</h3>
        <table class="plain-table">
          <tbody>
            <tr v-for="item in found.left.slice(0, 8)" :key="item.id">
              <td>{{ item.title }}</td>
              <td class="num">{{ percent(item.share) }}</td>
            </tr>
          </tbody>
        </table>
        <p class="soft small">
          How likely each is comes from this plan and from common practice; nobody measured it.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
  align-content: start;
  max-width: 60rem;
  padding: 1rem 1.25rem 3rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 2rem;
  align-items: end;
}
h2 {
  font-size: 1.2rem;
}
.symptoms {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.symptoms button {
  min-height: 44px;
  padding: 0.2rem 0.9rem;
  background: var(--chalk);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
  cursor: pointer;
}
.symptoms button[aria-pressed='true'] {
  font-weight: 700;
  border-bottom: 4px solid var(--pin);
}
form {
  display: grid;
  grid-template-columns: minmax(0, 24rem) auto;
  gap: 0.7rem;
  align-items: end;
  justify-content: start;
}
.next {
  display: grid;
  gap: 0.5rem;
  padding: 0.9rem 0;
  border-block: 2px solid var(--line-strong);
}
.next h3 {
  font-size: 1.15rem;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.state {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
  gap: 1rem 2rem;
}
ol {
  padding-left: 1.2rem;
  list-style: decimal;
}
</style>
