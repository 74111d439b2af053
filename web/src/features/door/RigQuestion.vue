<script setup lang="ts">
import type { Gap } from '@/api/client'

/** The question as one sentence; each gap is filled from a list. What nobody has said is shown as it is usual, and lighter. */
defineProps<{ gaps: readonly Gap[]; filled: Readonly<Record<string, string>> }>()
const emit = defineEmits<{ fill: [id: string, phrase: string] }>()
const NEW_SENTENCE = ['once']
const AFTER: Record<string, string> = { devices: '.', delivery: '.', matters: '.' }
</script>

<template>
  <p class="question">
    <template v-for="(gap, at) in gaps" :key="gap.id">
      <br v-if="NEW_SENTENCE.includes(gap.id)" class="wide" />
      <label>
        <span>{{ gap.lead }}</span>
        <select
          :class="{ open: gap.is_open && !(gap.id in filled) }"
          :aria-label="gap.lead.replace(':', '')"
          :value="filled[gap.id] ?? gap.phrase"
          @change="emit('fill', gap.id, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="option in gap.options" :key="option" :value="option">{{ option }}</option>
        </select>
        <span v-if="at < gaps.length - 1 || AFTER[gap.id]" class="mark">{{ AFTER[gap.id] ?? ',' }}</span>
      </label>
      {{ ' ' }}
    </template>
  </p>
</template>

<style scoped>
.question {
  font-size: 1.25rem;
  line-height: 2;
}
label {
  white-space: nowrap;
}
select {
  max-width: 100%;
  margin-left: 0.3rem;
  padding: 0 0.4rem;
  line-height: 1.35;
  font-weight: 700;
  background: var(--chalk);
  border: 0;
  border-bottom: 3px solid var(--pin);
  border-radius: 0;
  cursor: pointer;
  appearance: none;
  field-sizing: content;
}
select.open {
  color: var(--ink-soft);
  font-weight: 400;
  border-bottom: 1px dashed var(--ink-soft);
}
@media (width < 700px) {
  .question {
    font-size: 1.1rem;
  }
  label {
    white-space: normal;
  }
  .wide {
    display: none;
  }
}
</style>
