<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { DayCopies } from '@/api/client'
import SeverityMark from '@/ui/SeverityMark.vue'
import TaskBar from './TaskBar.vue'

/** Copies of all that was read, twice where that is wanted, and whether the card may be formatted. */
const props = defineProps<{ copies: DayCopies | null; isBusy: boolean }>()
defineEmits<{ copy: [into: string, second: string, mono: boolean]; cancel: [] }>()
const into = ref(props.copies?.task.folder ?? '')
const mono = ref(false)
const second = ref(props.copies?.second ?? '')
const isOn = computed(() => ['waiting', 'reading'].includes(props.copies?.task.state ?? ''))
const bad = computed(() => props.copies?.copies.filter((file) => !file.is_good) ?? [])
const renamed = computed(
  () => props.copies?.copies.filter((file) => file.is_good && file.name !== file.path) ?? [],
)
</script>

<template>
  <section aria-label="Copies">
    <h3>Copies</h3>
    <form class="no-print" @submit.prevent="$emit('copy', into, second, mono)">
      <label class="field"
        ><span>Into this folder</span
        ><input v-model="into" class="plain-input" placeholder="/media/drive/today" maxlength="1000"
      /></label>
      <label class="field"
        ><span>And once more into</span
        ><input v-model="second" class="plain-input" placeholder="another disk" maxlength="1000"
      /></label>
      <label class="tick"
        ><input v-model="mono" type="checkbox" /> split the sound of takes, also that of movies, into a file
        for each channel</label
      >
      <Button type="submit" label="Copy and check" :disabled="!into.trim() || isBusy" />
    </form>
    <p class="small soft">
      Sound gets scene, take, notes and track names of the log and plan; the rest of a file stays byte for
      byte. Pictures are copied as they are. A copy counts only once it was read back; beside the copies lie
      their checksums, for <em>sha256sum -c</em> and <em>./tidy verify</em>.
    </p>
    <TaskBar
      v-if="copies && isOn"
      :task="copies.task"
      what="Files are being copied"
      @cancel="$emit('cancel')"
    />
    <template v-else-if="copies">
      <p v-if="copies.task.state === 'failed'" class="is-stop" role="alert">{{ copies.task.message }}</p>
      <p v-else-if="copies.summary" :class="copies.is_good ? 'good' : 'is-stop'" role="status">
        <SeverityMark v-if="!copies.is_good" severity="stop" :size="13" /> {{ copies.summary }}
      </p>
      <ul v-if="bad.length">
        <li v-for="file in bad" :key="file.path">
          <strong>{{ file.path }}</strong> {{ file.text }}
        </li>
      </ul>
      <details v-if="renamed.length" class="small">
        <summary>{{ renamed.length }} renamed by their take</summary>
        <ul>
          <li v-for="file in renamed" :key="file.path">{{ file.path }} is now {{ file.name }}</li>
        </ul>
      </details>
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.5rem;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem 1rem;
  align-items: end;
}
form > :last-child {
  justify-self: end;
}
.tick {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 2.3rem;
}
.good {
  font-weight: 700;
}
@media (width < 700px) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
