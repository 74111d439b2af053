<script setup lang="ts">
import Button from 'primevue/button'
import Drawer from 'primevue/drawer'
import { computed } from 'vue'

import { useJob } from '@/stores/job'
import { useSettings } from '@/stores/settings'
import { useHistory } from './useHistory'

/** The revisions of a job: who, when, what. One is looked at, two are compared in words. */
const visible = defineModel<boolean>('visible', { required: true })
const job = useJob()
const settings = useSettings()
const { before, after, entries, changes } = useHistory(visible)

const time = new Intl.DateTimeFormat('en-GB', { dateStyle: 'short', timeStyle: 'short' })
const numbers = computed(() => entries.value?.map(({ number }) => number))
</script>

<template>
  <Drawer v-model:visible="visible" position="right" header="History" style="width: 30rem">
    <div class="panel">
      <label class="field">
        <span>Your name, shown beside your changes</span>
        <input v-model="settings.who" maxlength="80" placeholder="no name" />
      </label>
      <p class="compare">
        <label class="field">
          <span>From revision</span>
          <select v-model="before">
            <option :value="null">–</option>
            <option v-for="number in numbers" :key="number" :value="number">{{ number }}</option>
          </select>
        </label>
        <label class="field">
          <span>to revision</span>
          <select v-model="after">
            <option v-for="number in numbers" :key="number" :value="number">{{ number }}</option>
          </select>
        </label>
        <Button v-if="before" text size="small" @click="before = null">Stop comparing</Button>
      </p>
      <section v-if="changes" class="changes" aria-label="What changed" role="status">
        <p v-if="!changes.length">No changes: these two revisions are the same.</p>
        <ul>
          <li v-for="(change, index) in changes" :key="index">{{ change }}</li>
        </ul>
      </section>
      <ol>
        <li
          v-for="entry in entries"
          :key="entry.number"
          :class="{ here: entry.number === job.state?.revision }"
        >
          <button type="button" class="state" @click="job.lookAt(entry.number)">
            <span class="num soft">{{ entry.number }}</span>
            <span>{{ entry.sentence }}</span>
            <span class="soft small by"
              >{{ entry.who ? `${entry.who}, ` : ''
              }}<time :datetime="entry.created">{{ time.format(new Date(entry.created)) }}</time></span
            >
          </button>
          <Button
            v-if="entry.number !== job.newest?.revision"
            text
            size="small"
            :aria-label="`Changes since revision ${entry.number}`"
            @click="((before = entry.number), (after = job.newest?.revision ?? null))"
            >changes since</Button
          >
        </li>
      </ol>
    </div>
  </Drawer>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 0.9rem;
}
.compare {
  display: grid;
  grid-template-columns: 6rem 6rem 1fr;
  gap: 0.6rem;
  align-items: end;
}
.changes {
  padding: 0.6rem 0.8rem;
  background: var(--chalk);
  border-left: 4px solid var(--pin);
}
.changes li::first-letter {
  text-transform: uppercase;
}
.changes li + li {
  margin-top: 0.35rem;
}
ol li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: start;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--line);
}
ol li.here {
  background: var(--chalk);
  border-left-color: var(--pin);
}
.state {
  display: grid;
  grid-template-columns: 2rem 1fr;
  gap: 0 0.6rem;
  padding: 0.5rem 0.3rem;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
.by {
  grid-column: 2;
}
</style>
