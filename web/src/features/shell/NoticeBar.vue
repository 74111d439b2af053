<script setup lang="ts">
import Button from 'primevue/button'
import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'

import { isCut, trouble } from '@/api/connection'
import { useJob } from '@/stores/job'

/** What went wrong, what was done, and which state is being looked at. The walk says itself what has not arrived. */
const job = useJob()
const route = useRoute()
// What was done is told where it was done.
watch(
  () => route.name,
  () => (job.notice = ''),
)
const kept = computed(() => {
  const count = job.refused.length
  return `${count} ${count === 1 ? 'change was' : 'changes were'} not done: the job had moved on.`
})
</script>

<template>
  <div class="bars no-print" aria-live="polite">
    <p v-if="isCut && route.name !== 'walk'" class="bar waiting" role="status">
      <span
        ><template v-if="job.unsaved"
          >Not saved yet: {{ job.unsaved }} {{ job.unsaved === 1 ? 'change' : 'changes' }}. </template
        >{{ trouble }} Trying again.</span
      >
    </p>
    <p v-if="job.problem || job.refused.length" class="bar problem" role="alert">
      <span>{{ job.problem || kept }}</span>
      <Button v-if="job.refused.length" size="small" @click="job.again()">Apply again</Button>
      <Button text size="small" @click="((job.problem = ''), job.forgetRefused())">{{
        job.refused.length ? 'Discard' : 'Close'
      }}</Button>
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
</style>
