<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref } from 'vue'

import { useCatalogue } from '@/stores/catalogue'
import { useJob } from '@/stores/job'

/** The devices of the job, and the catalogue of plain classes to add from. */
const emit = defineEmits<{ open: [device: string] }>()
const job = useJob()
const catalogue = useCatalogue()
const chosen = ref('')
const label = ref('')
onMounted(() => catalogue.load())

const kinds = computed(() => {
  const found = new Map<string, { id: string; label: string }[]>()
  const own = (job.state?.plan.classes ?? []).map((item) => ({ ...item, kind: 'your own' }))
  for (const item of [...own, ...(catalogue.value?.classes ?? [])])
    found.set(item.kind, [...(found.get(item.kind) ?? []), item])
  return [...found]
})

async function add() {
  const named = label.value.trim()
  if (await job.edit([{ kind: 'add-device', class_id: chosen.value, label: named || null }])) label.value = ''
}
</script>

<template>
  <section>
    <h2>Equipment</h2>
    <ul>
      <li v-for="device in job.state?.devices" :key="device.id">
        <button type="button" @click="emit('open', device.id)">{{ device.label }}</button>
        <span class="soft">{{ device.class_label }}</span>
      </li>
    </ul>
    <form class="add-form no-print" @submit.prevent="add">
      <label class="field">
        <span>Type of device</span>
        <select v-model="chosen" required>
          <optgroup v-for="[kind, classes] in kinds" :key="kind" :label="kind">
            <option v-for="item in classes" :key="item.id" :value="item.id">{{ item.label }}</option>
          </optgroup>
        </select>
      </label>
      <label class="field">
        <span>Device name</span>
        <input v-model="label" maxlength="80" placeholder="its type, if left empty" />
      </label>
      <Button type="submit" :disabled="!chosen || job.readOnly">Add</Button>
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 0.8rem;
}
h2 {
  font-size: 1.2rem;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(20rem, 100%), 1fr));
  gap: 0 1.4rem;
}
li {
  display: grid;
  grid-template-columns: 9rem 1fr;
  gap: 0.6rem;
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
}
li button {
  padding: 0;
  font-weight: 700;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
li button:hover {
  text-decoration: underline;
}
</style>
