<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Target } from '@/api/client'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'

/** Targets of one's own: from where to where a track's average or peaks should lie. */
const job = useJob()
const targets = computed(() => job.state?.plan.targets ?? [])
const label = ref('')
const ENDS = [
  { field: 'low_dbfs', label: 'from' },
  { field: 'high_dbfs', label: 'to' },
] as const

const save = (target: Omit<Target, 'id'> & { id?: string }) =>
  job.edit([{ kind: 'save-target' as const, ...target }])

async function add() {
  if (await save({ label: label.value.trim(), low_dbfs: -24, high_dbfs: -16, of_peaks: false }))
    label.value = ''
}
const number = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <details>
    <summary><h2>Targets of your own</h2></summary>
    <div v-if="targets.length" class="scrolls">
      <table class="plain-table">
        <tbody>
          <tr v-for="target in targets" :key="target.id">
            <th scope="row">{{ target.label }}</th>
            <td v-for="end in ENDS" :key="end.field">
              {{ end.label }}
              <KeptInput
                class="plain-input num"
                type="number"
                min="-80"
                max="0"
                :value="target[end.field]"
                :aria-label="`${target.label}, ${end.label}, dBFS`"
                :disabled="job.readOnly"
                @change="save({ ...target, [end.field]: number($event) })"
              />
              dBFS
            </td>
            <td>
              <label>
                <input
                  :key="job.refusals"
                  type="checkbox"
                  :checked="target.of_peaks ?? false"
                  :disabled="job.readOnly"
                  @change="save({ ...target, of_peaks: !target.of_peaks })"
                />
                read on peaks
              </label>
            </td>
            <td class="no-print">
              <Button
                text
                size="small"
                :disabled="job.readOnly"
                @click="job.edit([{ kind: 'remove-target', target: target.id }])"
                >Remove</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <form class="add-form no-print" @submit.prevent="add">
      <label class="field"><span>New target</span><input v-model="label" maxlength="80" required /></label>
      <Button type="submit" :disabled="!label.trim() || job.readOnly">Add</Button>
    </form>
  </details>
</template>

<style scoped>
details[open] {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
}
h2 {
  display: inline;
  font-size: 1.2rem;
}
td .num {
  width: 4.5rem;
}
</style>
