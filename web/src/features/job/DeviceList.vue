<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { useJob } from '@/stores/job'
import { useDeviceChoice } from './useDeviceChoice'

/** The devices of the job, and what there is to add: one's own equipment, then the built-in classes. */
const emit = defineEmits<{ open: [device: string] }>()
const job = useJob()
const { kinds, copies, problem, add, keep, renew } = useDeviceChoice()
const chosen = ref('')
const label = ref('')

async function take() {
  if (await add(chosen.value, label.value.trim())) label.value = ''
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
    <form class="add-form no-print" @submit.prevent="take">
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
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <div v-if="copies.length">
      <h3>Your own classes in this job</h3>
      <ul class="copies">
        <li v-for="item in copies" :key="item.id">
          <span>{{ item.label }}</span>
          <span v-if="item.original === 'same'" class="soft">as in My equipment</span>
          <span v-else-if="item.original === 'changed'">
            differs from My equipment
            <Button text size="small" :disabled="job.readOnly" @click="renew(item.id)"
              >Use what My equipment says</Button
            >
            <Button text size="small" @click="keep(item.id)">Keep the job's</Button>
          </span>
          <Button v-else text size="small" @click="keep(item.id)">Keep in My equipment</Button>
          <RouterLink
            v-if="item.original !== 'none'"
            :to="{ name: 'equipment-class', params: { id: item.id }, query: { job: job.state?.job } }"
            >Change</RouterLink
          >
        </li>
      </ul>
    </div>
    <p class="small no-print links">
      <RouterLink :to="{ name: 'gear-tests' }">Know your gear: test these devices</RouterLink>
      <RouterLink to="/equipment">My equipment</RouterLink>
    </p>
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
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.2rem;
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
.copies li {
  grid-template-columns: minmax(9rem, auto) 1fr auto;
}
h3 {
  font-size: 1rem;
}
li > button {
  padding: 0;
  font-weight: 700;
  text-align: left;
  background: none;
  border: 0;
  cursor: pointer;
}
li > button:hover {
  text-decoration: underline;
}
</style>
