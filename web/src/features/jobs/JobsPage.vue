<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { formatMoment } from '@/format/time'
import { useJobs } from './useJobs'

const router = useRouter()
const { jobs, problem, backedUp, create, remove, readIn } = useJobs((state) =>
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
  <main>
    <header><h1>Tidy Trunk</h1></header>
    <p class="intro">Every source on its track, at the right level, and the picture in step.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <form @submit.prevent="create(name)">
      <label class="field">
        <span>New job</span>
        <input v-model="name" required maxlength="80" placeholder="What is being shot" autofocus />
      </label>
      <Button type="submit" :disabled="!name.trim()">Create</Button>
    </form>
    <ul v-if="jobs?.length" aria-label="Jobs">
      <li v-for="job in jobs" :key="job.id">
        <RouterLink :to="{ name: 'runs', params: { job: job.id } }">{{ job.name }}</RouterLink>
        <span class="soft small when"
          >created {{ date.format(new Date(job.created)) }}, revision {{ job.head }}</span
        >
        <Button v-if="leaving !== job.id" text size="small" @click="leaving = job.id">Remove</Button>
        <Button v-else class="leave" outlined size="small" @click="remove(job.id)"
          >Remove with its history</Button
        >
      </li>
    </ul>
    <label class="file">
      Read a plan file
      <input type="file" accept="application/json,.json" @change="importFile" />
    </label>
    <p class="small">
      <RouterLink to="/equipment">My equipment</RouterLink> ·
      <RouterLink to="/backups">Backups</RouterLink>
      <span v-if="backedUp" class="soft">, last backup {{ formatMoment(backedUp) }}</span>
      <span v-else-if="backedUp === ''" class="soft">, no backup yet</span>
    </p>
    <p class="soft small caution">
      The program advises. A test recording and headphones decide; local codes and licensed people rule where
      mains, radio or heights are concerned.
    </p>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1.4rem;
  max-width: 40rem;
  margin: 0 auto;
  padding: 4rem 1.25rem;
}
h1 {
  font-size: 2rem;
}
.intro {
  font-size: 1.15rem;
}
.problem {
  color: var(--stop);
  font-weight: 600;
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
  padding: 0.7rem 0;
  border-top: 1px solid var(--line);
}
li a {
  color: var(--ink);
  font-size: 1.1rem;
  font-weight: 600;
}
.leave {
  color: var(--stop);
  border-color: var(--stop);
}
.when {
  margin-left: auto;
  white-space: nowrap;
}
.file {
  display: grid;
  gap: 0.3rem;
}
</style>
