<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { shallowRef } from 'vue'

import { api, ApiProblem, type Changes } from '@/api/client'
import { useJob } from '@/stores/job'

/** The plan as a file: out, and in again with what it would change shown before it does. */
const job = useJob()
const file = shallowRef<{ name: string; plan: unknown } | null>(null)
const changes = shallowRef<Changes | null>(null)

async function read(event: Event) {
  const field = event.target as HTMLInputElement
  const chosen = field.files?.[0]
  if (!chosen || !job.newest) return
  job.problem = ''
  try {
    const plan: unknown = JSON.parse(await chosen.text())
    changes.value = await api.wouldChange(job.newest.job, plan)
    file.value = { name: chosen.name, plan }
  } catch (error) {
    job.problem =
      error instanceof ApiProblem
        ? `${chosen.name}: ${error.detail}`
        : `${chosen.name} is no plan file: it is not JSON.`
  }
  field.value = ''
}

async function take() {
  if (file.value && (await job.replace(file.value.plan))) file.value = null
}
</script>

<template>
  <section v-if="job.newest" class="no-print">
    <h2>The plan as a file</h2>
    <p><a :href="api.planAddress(job.newest.job)" download="plan.json">Save the plan as a file</a></p>
    <label class="field">
      <span>Read a plan file into this job</span>
      <input type="file" accept="application/json,.json" :disabled="job.readOnly" @change="read" />
    </label>
    <Dialog
      :visible="Boolean(file)"
      modal
      :header="`What ${file?.name} would change`"
      style="width: 38rem"
      @update:visible="(shown: boolean) => shown || (file = null)"
    >
      <template v-if="changes">
        <ul v-if="changes.changes.length">
          <li v-for="(change, index) in changes.changes" :key="index">{{ change }}</li>
        </ul>
        <p v-else>Nothing: it is the plan that stands here.</p>
        <p class="soft">
          Then: {{ changes.counts.stop }} won’t work, {{ changes.counts.caution }} to check,
          {{ changes.counts.note }} notes. It can be undone.
        </p>
      </template>
      <template #footer>
        <Button outlined @click="file = null">Cancel</Button>
        <Button :disabled="!changes?.changes.length" @click="take">Replace the plan</Button>
      </template>
    </Dialog>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.6rem;
  justify-items: start;
}
h2 {
  font-size: 1.2rem;
}
a {
  color: inherit;
}
li {
  padding: 0.3rem 0;
  border-top: 1px solid var(--line);
}
</style>
