<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Day, Edit } from '@/api/client'
import { useJob } from '@/stores/job'
import SpanRow from '@/ui/SpanRow.vue'

/** Breaks, in which batteries and cards are changed without anybody waiting, and company moves, after which all is tested again. */
const props = defineProps<{ day: Day }>()
const job = useJob()
const label = ref('')
type Span = Day['breaks'][number]
type Kind = 'set-break' | 'save-move'

const set = (kind: Kind, item: Span, change: Partial<Span>) =>
  void job.edit([{ kind, ...item, ...change } as Edit])
async function add(kind: Kind) {
  const name = label.value.trim()
  const last = props.day.set_ups.at(-1)
  const at = last ? Math.ceil((last.at_min + last.length_min) / 5) * 5 : props.day.call_min + 240
  if (name && (await job.edit([{ kind, label: name, at_min: at, length_min: 30 } as Edit]))) label.value = ''
}
</script>

<template>
  <section aria-label="Breaks and moves">
    <h3>Breaks and moves</h3>
    <ul v-if="day.breaks.length || day.moves.length">
      <SpanRow
        v-for="item in day.breaks"
        :key="item.id"
        :item="item"
        :before="day.call_min"
        :disabled="job.readOnly"
        @change="(change) => set('set-break', item, change)"
        @remove="job.edit([{ kind: 'remove-break', id: item.id }])"
      />
      <SpanRow
        v-for="item in day.moves"
        :key="item.id"
        :item="{ ...item, label: `move to ${item.label}` }"
        :before="day.call_min"
        :disabled="job.readOnly"
        @change="(change) => set('save-move', item, change)"
        @remove="job.edit([{ kind: 'remove-move', id: item.id }])"
      />
    </ul>
    <form class="add no-print" @submit.prevent="add('set-break')">
      <label class="field"
        ><span>New break, or where to move</span
        ><input
          v-model="label"
          class="plain-input"
          maxlength="80"
          placeholder="lunch"
          :disabled="job.readOnly"
      /></label>
      <Button type="submit" size="small" outlined :disabled="job.readOnly || !label.trim()">Add break</Button>
      <Button size="small" outlined :disabled="job.readOnly || !label.trim()" @click="add('save-move')"
        >Add move</Button
      >
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}
</style>
