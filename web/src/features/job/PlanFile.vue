<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

import { addresses } from '@/api/addresses'
import { useJob } from '@/stores/job'
import { usePlanFile } from './usePlanFile'

/** The plan as a file: out, and in again with what it would change shown before it does. */
const job = useJob()
const { file, changes, read, use } = usePlanFile()

function choose(event: Event) {
  const field = event.target as HTMLInputElement
  const chosen = field.files?.[0]
  field.value = '' // the same file can be read again
  if (chosen) void read(chosen)
}
</script>

<template>
  <section v-if="job.newest" class="no-print">
    <h2>The plan as a file</h2>
    <p><a :href="addresses.plan(job.newest.job)" download="plan.json">Save the plan as a file</a></p>
    <label class="field">
      <span>Read a plan file into this job</span>
      <input type="file" accept="application/json,.json" :disabled="job.readOnly" @change="choose" />
    </label>
    <Dialog
      :visible="Boolean(file)"
      modal
      :header="`Changes in ${file?.name}`"
      style="width: 38rem"
      @update:visible="(shown: boolean) => shown || (file = null)"
    >
      <template v-if="changes">
        <ul v-if="changes.changes.length">
          <li v-for="(change, index) in changes.changes" :key="index">{{ change }}</li>
        </ul>
        <p v-else>Nothing: the plan is the same as this one.</p>
        <p class="soft">
          Then: {{ changes.counts.stop }} won’t work, {{ changes.counts.caution }} to check,
          {{ changes.counts.note }} notes. It can be undone.
        </p>
      </template>
      <template #footer>
        <Button outlined @click="file = null">Cancel</Button>
        <Button :disabled="!changes?.changes.length" @click="use">Replace the plan</Button>
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
