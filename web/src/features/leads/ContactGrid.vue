<script setup lang="ts">
import type { Contact } from '@/api/client'

/** Which contact is joined to which: a row for each of the sending end, a column for each of the receiving one. */
defineProps<{
  near: readonly Contact[]
  far: readonly Contact[]
  isJoined: (near: string, far: string) => boolean
  locked: boolean
}>()
const emit = defineEmits<{ toggle: [near: string, far: string] }>()
</script>

<template>
  <table>
    <thead>
      <tr>
        <td class="soft small">from ↓ to →</td>
        <th v-for="there in far" :key="there.name" scope="col">
          {{ there.name }}<span class="soft small">{{ there.carries }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="here in near" :key="here.name">
        <th scope="row">
          {{ here.name }} <span class="soft small">{{ here.carries }}</span>
        </th>
        <td v-for="there in far" :key="there.name">
          <button
            type="button"
            :aria-pressed="isJoined(here.name, there.name)"
            :aria-label="`${here.name} to ${there.name}`"
            :disabled="locked"
            @click="emit('toggle', here.name, there.name)"
          >
            {{ isJoined(here.name, there.name) ? '●' : '' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  justify-self: start;
  border-collapse: collapse;
}
td {
  padding: 0.15rem;
  text-align: center;
}
th {
  padding: 0.3rem 0.5rem;
  text-align: left;
}
thead th {
  text-align: center;
}
thead span {
  display: block;
  max-width: 4.5rem;
  font-weight: 400;
}
tbody span {
  font-weight: 400;
}
button {
  display: block;
  width: 4.5rem;
  height: 2.75rem;
  background: var(--chalk);
  border: 1px solid var(--line);
  cursor: pointer;
}
button[aria-pressed='true'] {
  color: var(--paper);
  background: var(--ink);
}
</style>
