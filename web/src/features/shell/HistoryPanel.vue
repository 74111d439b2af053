<script setup lang="ts">
import Drawer from 'primevue/drawer'
import { ref, watch } from 'vue'

import { api, type HistoryEntry } from '@/api/client'
import { useJob } from '@/stores/job'

const visible = defineModel<boolean>('visible', { required: true })
const job = useJob()
const entries = ref<HistoryEntry[]>([])

watch([visible, () => job.newest?.revision], async ([shown]) => {
  if (shown && job.newest) entries.value = await api.history(job.newest.job)
})

const time = new Intl.DateTimeFormat('en-GB', { dateStyle: 'short', timeStyle: 'short' })
</script>

<template>
  <Drawer v-model:visible="visible" position="right" header="History" style="width: 24rem">
    <ol>
      <li v-for="entry in entries" :key="entry.number">
        <button
          type="button"
          :class="{ here: entry.number === job.state?.revision }"
          @click="job.lookAt(entry.number)"
        >
          <span class="num soft">{{ entry.number }}</span>
          <span>{{ entry.sentence }}</span>
          <time class="soft small" :datetime="entry.created">{{ time.format(new Date(entry.created)) }}</time>
        </button>
      </li>
    </ol>
  </Drawer>
</template>

<style scoped>
button {
  display: grid;
  grid-template-columns: 2rem 1fr;
  gap: 0 0.6rem;
  width: 100%;
  padding: 0.5rem 0.3rem;
  text-align: left;
  background: none;
  border: 0;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
button.here {
  background: var(--chalk);
  border-left-color: var(--pin);
}
time {
  grid-column: 2;
}
</style>
