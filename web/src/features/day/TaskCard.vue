<script setup lang="ts">
import type { DayTask } from '@/api/client'

/** The next thing, large: what, until when, why; two buttons under the thumb. */
defineProps<{ task: DayTask; mayLog: boolean }>()
const emit = defineEmits<{ done: []; later: [] }>()
</script>

<template>
  <section class="next" aria-label="Next">
    <p class="soft">
      Next, at {{ task.at }}<template v-if="task.who">, {{ task.who }}</template
      ><template v-if="task.place">, {{ task.place }}</template>
    </p>
    <h3>{{ task.what }}</h3>
    <p v-if="task.by">
      <strong>By {{ task.by }} at the latest.</strong>
    </p>
    <p>{{ task.why }}</p>
    <div v-if="mayLog" class="buttons no-print">
      <button type="button" class="tap main" @click="emit('done')">Done</button>
      <button type="button" class="tap" @click="emit('later')">Later</button>
    </div>
  </section>
</template>

<style scoped>
.next {
  display: grid;
  gap: 0.3rem;
  padding: 0.9rem 0 1rem;
  border-bottom: 1px solid var(--line);
}
h3 {
  font-size: 1.45rem;
  line-height: 1.2;
}
.buttons {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
  padding-top: 0.5rem;
}
button {
  min-height: 3.1rem;
  font-weight: 700;
}
</style>
