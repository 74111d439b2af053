<script setup lang="ts">
import Button from 'primevue/button'

import type { StockLead } from '@/api/client'
import { useOwnLeads } from '@/composables/useOwnLeads'
import { useJob } from '@/stores/job'

/** The leads that this job has made for itself, and what a new one may begin with. */
defineProps<{ here: string; stock: StockLead[] }>()
defineEmits<{ begin: [id: string] }>()
const job = useJob()
const { own } = useOwnLeads()
</script>

<template>
  <section class="made">
    <h2>Cables of your own</h2>
    <ul v-if="own.length">
      <li v-for="lead in own" :key="lead.id">
        <button type="button" :class="{ here: lead.id === here }" @click="$emit('begin', lead.id)">
          {{ lead.label }}
        </button>
        <Button
          text
          size="small"
          :disabled="job.readOnly"
          @click="job.edit([{ kind: 'remove-lead', lead: lead.id }])"
          >Remove</Button
        >
      </li>
    </ul>
    <p v-else class="soft">
      None yet. Join the contacts below, and see at once what each socket would receive.
    </p>
    <label class="field">
      <span>Begin with a copy of</span>
      <select value="" @change="$emit('begin', ($event.target as HTMLSelectElement).value)">
        <option value="">an empty cable</option>
        <option v-for="lead in stock" :key="lead.id" :value="lead.id">{{ lead.label }}</option>
      </select>
    </label>
  </section>
</template>

<style scoped>
.made {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: auto 1fr 16rem;
  gap: 0.4rem 1.5rem;
  align-items: end;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
li button:first-child {
  padding: 0.3rem 0;
  font-weight: 600;
  background: none;
  border: 0;
  cursor: pointer;
}
.here {
  text-decoration: underline;
}
h2 {
  font-size: 1.2rem;
}
@media (width < 700px) {
  .made {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
