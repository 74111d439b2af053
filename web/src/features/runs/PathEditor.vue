<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted } from 'vue'

import type { Hazard, Run, Stretch } from '@/api/client'
import { useCatalogue } from '@/stores/catalogue'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'

/** Where the lead of a run lies: stretches with a length, each with what it passes. */
const props = defineProps<{ run: Run }>()
const job = useJob()
const catalogue = useCatalogue()
onMounted(() => catalogue.load())
const path = computed<readonly Stretch[]>(() => props.run.path ?? [])
const hazard = (what: Hazard) => catalogue.value?.hazards.find(({ id }) => id === what)

/** Changes the path as it stands when its turn comes: the answer to an earlier change may still be on its way. */
const keep = (change: (path: readonly Stretch[]) => Stretch[]) =>
  void job.edit(() => [{ kind: 'set-path', run: props.run.id, path: change(path.value) }])
const change = (index: number, made: (stretch: Stretch) => Partial<Stretch>) =>
  keep((path) => path.map((item, at) => (at === index ? { ...item, ...made(item) } : item)))
const number = (event: Event) => {
  const text = (event.target as HTMLInputElement).value
  return text === '' ? null : Number(text)
}

const setLength = (index: number, length_m: number | null) =>
  change(index, () => (length_m === null ? {} : { length_m }))

function passBy(index: number, event: Event) {
  const field = event.target as HTMLSelectElement
  const what = field.value as Hazard
  field.value = ''
  if (what) change(index, ({ passes }) => ({ passes: [...(passes ?? []), { what, metres: null }] }))
}
const setPassing = (index: number, at: number, metres: number | null) =>
  change(index, ({ passes }) => ({
    passes: (passes ?? []).map((item, here) => (here === at ? { ...item, metres } : item)),
  }))
const dropPassing = (index: number, at: number) =>
  change(index, ({ passes }) => ({ passes: (passes ?? []).filter((_, here) => here !== at) }))
</script>

<template>
  <ol v-if="path.length">
    <li v-for="(stretch, index) in path" :key="index">
      <div class="line">
        <KeptInput
          class="plain-input num"
          type="number"
          min="0.1"
          max="500"
          step="0.1"
          :aria-label="`Stretch ${index + 1}, length in m`"
          :value="stretch.length_m"
          :disabled="job.readOnly"
          @change="setLength(index, number($event))"
        />
        m past
        <select
          class="plain-input"
          :aria-label="`Stretch ${index + 1} passes`"
          :disabled="job.readOnly"
          @change="passBy(index, $event)"
        >
          <option value="">+ what it passes</option>
          <option v-for="item in catalogue.value?.hazards" :key="item.id" :value="item.id">
            {{ item.label }}
          </option>
        </select>
        <Button
          text
          size="small"
          :aria-label="`Remove stretch ${index + 1}`"
          :disabled="job.readOnly"
          @click="keep((all) => all.filter((_, at) => at !== index))"
          >×</Button
        >
      </div>
      <div v-for="(passing, at) in stretch.passes" :key="at" class="line passing">
        <span>{{ hazard(passing.what)?.label }}, {{ hazard(passing.what)?.along ? 'for' : 'at' }}</span>
        <KeptInput
          class="plain-input num"
          type="number"
          min="0"
          max="500"
          step="0.1"
          :aria-label="`${hazard(passing.what)?.label}, metres`"
          :value="passing.metres"
          :disabled="job.readOnly"
          @change="setPassing(index, at, number($event))"
        />
        m
        <Button
          text
          size="small"
          :aria-label="`Remove ${hazard(passing.what)?.label}`"
          :disabled="job.readOnly"
          @click="dropPassing(index, at)"
          >×</Button
        >
      </div>
    </li>
  </ol>
  <Button
    outlined
    size="small"
    :disabled="job.readOnly"
    @click="keep((all) => [...all, { length_m: 5, passes: [] }])"
    >{{ path.length ? 'One more stretch' : 'Describe the route' }}</Button
  >
</template>

<style scoped>
ol {
  display: grid;
  gap: 0.6rem;
}
.line {
  display: grid;
  grid-template-columns: 5rem auto 1fr auto;
  gap: 0.5rem;
  align-items: center;
}
.passing {
  grid-template-columns: 1fr 5rem auto auto;
  padding-left: 1rem;
}
</style>
