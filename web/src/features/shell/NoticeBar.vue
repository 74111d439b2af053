<script setup lang="ts">
import Button from 'primevue/button'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'

import { isCut, trouble } from '@/api/connection'
import { useJob } from '@/stores/job'
import { useMe } from '@/stores/me'
import { inHand } from './stations'

/** What went wrong, what was done, and which state is being looked at. The walk says itself what has not arrived. */
const job = useJob()
const mine = useMe()
const route = useRoute()
// What was done is told where it was done.
watch(
  () => route.name,
  () => (job.notice = ''),
)
const MOST_LINES = 6 // of what others did: more is told by the history
const keptOut = computed(() => {
  const last = job.refused.at(-1)?.refused
  const theirs = last?.theirs ?? ['changed the job']
  const more = theirs.length - MOST_LINES
  return {
    yours: job.refused.flatMap((item) => item.refused?.yours || []),
    by: last?.by || 'Somebody else',
    theirs: more > 0 ? [...theirs.slice(0, MOST_LINES), `and ${more} more`] : theirs,
    title: job.refused.length === 1 ? 'Your change was not done' : 'Your changes were not done',
  }
})
</script>

<template>
  <div class="bars no-print" aria-live="polite">
    <p v-if="isCut && !inHand(route.name)" class="bar waiting" role="status">
      <span
        ><template v-if="job.unsaved"
          >Not saved yet: {{ job.unsaved }} {{ job.unsaved === 1 ? 'change' : 'changes' }}. </template
        >{{ trouble }} Trying again.</span
      >
    </p>
    <section v-if="job.refused.length" class="bar" role="alert" aria-label="Not done">
      <div class="versions">
        <p class="problem">{{ keptOut.title }}: the job was changed meanwhile.</p>
        <dl>
          <template v-if="keptOut.yours.length">
            <dt>You</dt>
            <dd v-for="line in keptOut.yours" :key="line">{{ line }}</dd>
          </template>
          <dt>{{ keptOut.by }}</dt>
          <dd v-for="line in keptOut.theirs" :key="line">{{ line }}</dd>
          <dd v-if="!keptOut.theirs.length">changed something and took it back</dd>
        </dl>
      </div>
      <Button size="small" @click="job.again()">Apply again</Button>
      <Button text size="small" @click="job.forgetRefused()">Discard</Button>
    </section>
    <p v-if="job.problem" class="bar problem" role="alert">
      <span>{{ job.problem }}</span>
      <Button text size="small" @click="job.problem = ''">Close</Button>
    </p>
    <p v-if="!mine.mayEdit && !inHand(route.name)" class="bar">
      <span>{{ mine.me.name }}: this telephone {{ mine.does }}.</span>
    </p>
    <p v-if="job.looked" class="bar">
      <span>Looking at revision {{ job.looked.revision }}: {{ job.looked.sentence }}</span>
      <Button size="small" @click="job.bringBack()">Restore</Button>
      <Button text size="small" @click="job.looked = null">Back to the newest</Button>
    </p>
    <p v-else-if="job.notice" class="bar">
      <span>{{ job.notice }}</span>
      <Button v-if="job.newest?.can_undo" outlined size="small" @click="job.undo()">Undo <kbd>u</kbd></Button>
      <Button text size="small" @click="job.notice = ''">Close</Button>
    </p>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  padding: 0.35rem 1.25rem;
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
}
.bar span {
  flex: 1;
}
@media (width < 700px) {
  .bar {
    padding: 0.2rem 0.6rem;
    font-size: 0.9rem;
  }
  .bar span {
    display: -webkit-box;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
  }
}
.waiting {
  color: var(--caution);
  font-weight: 600;
}
.problem {
  color: var(--stop);
  font-weight: 600;
}
.versions {
  flex: 1 1 18rem;
}
.versions dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 0 0.8rem;
  margin: 0.2rem 0 0;
}
.versions dt {
  grid-column: 1;
  font-weight: 600;
}
.versions dd {
  grid-column: 2;
  margin: 0;
}
</style>
