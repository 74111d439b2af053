<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { formatMoment } from '@/format/time'
import { useJobs } from './useJobs'

/** All jobs, and the ways to begin one that is not planned by a question: empty, or from a file. */
const router = useRouter()
const { jobs, examples, problem, backedUp, create, openExample, remove, readIn } = useJobs((state) =>
  router.push({ name: 'runs', params: { job: state.job } }),
)
const name = ref('')
const leaving = ref('') // asked once more, as a job and its history do not come back
const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' })

function importFile(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file) void readIn(file)
}
</script>

<template>
  <section class="jobs">
    <div>
      <h2>Jobs</h2>
      <ul v-if="jobs?.length" aria-label="Jobs">
        <li v-for="job in jobs" :key="job.id">
          <RouterLink :to="{ name: 'runs', params: { job: job.id } }">{{ job.name }}</RouterLink>
          <span class="soft small when"
            >{{ date.format(new Date(job.created)) }}, revision {{ job.head }}</span
          >
          <Button v-if="leaving !== job.id" text size="small" @click="leaving = job.id">Remove</Button>
          <Button v-else class="leave" outlined size="small" @click="remove(job.id)"
            >Remove with its history</Button
          >
        </li>
      </ul>
      <p v-else-if="jobs" class="soft">No jobs yet.</p>
      <template v-if="examples.length">
        <h2 class="next">Examples, each with a mistake to find</h2>
        <ul aria-label="Examples">
          <li v-for="item in examples" :key="item.id">
            <button type="button" class="example" @click="openExample(item.id)">{{ item.title }}</button>
            <span class="soft small">{{ item.story }}</span>
          </li>
        </ul>
      </template>
      <p v-if="backedUp" class="soft small">Last backup {{ formatMoment(backedUp) }}</p>
      <p v-else-if="backedUp === '' && jobs?.length" class="soft small">No backup yet</p>
    </div>
    <div class="begin">
      <h2>Begin another way</h2>
      <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
      <form @submit.prevent="create(name)">
        <label class="field">
          <span>New job</span>
          <input v-model="name" required maxlength="80" placeholder="Name, such as Interview" />
        </label>
        <Button type="submit" outlined :disabled="!name.trim()">Create</Button>
      </form>
      <label class="field">
        <span>Open a saved plan (.json)</span>
        <input type="file" accept="application/json,.json" @change="importFile" />
      </label>
    </div>
  </section>
</template>

<style scoped>
.jobs {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 24rem);
  gap: 1rem 3rem;
  align-items: start;
  padding-top: 0.8rem;
}
h2 {
  font-size: 1.1rem;
}
.begin {
  display: grid;
  gap: 0.8rem;
}
form {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  align-items: end;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: baseline;
  padding: 0.45rem 0;
  border-top: 1px solid var(--line);
}
li a {
  color: var(--ink);
  font-weight: 600;
}
.next {
  margin-top: 1.2rem;
}
.example {
  padding: 0;
  font-weight: 600;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
.leave {
  color: var(--stop);
  border-color: var(--stop);
}
.when {
  margin-left: auto;
  white-space: nowrap;
}
@media (width < 700px) {
  .jobs {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
