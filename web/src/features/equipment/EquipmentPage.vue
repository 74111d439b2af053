<script setup lang="ts">
import Button from 'primevue/button'

import { addresses } from '@/api/addresses'
import { formatMoment } from '@/format/time'
import { useEquipment } from './useEquipment'

/** Devices and cables of one's own: they belong to no job, and any job can take them. */
const { own, problem, told, gone, takeIn, remove, undo } = useEquipment()
</script>

<template>
  <main>
    <p><RouterLink to="/">All jobs</RouterLink></p>
    <h1>My equipment</h1>
    <p>
      Your own devices and cables. Every job offers them before the built-in ones, and keeps its own copy.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="told" role="status">{{ told }}</p>
    <p v-if="gone" role="status">
      {{ gone.id }} removed. <Button text size="small" @click="undo">Undo</Button>
    </p>
    <div class="actions">
      <RouterLink class="new" :to="{ name: 'equipment-class', params: { id: 'new' } }"
        >Describe a device or cable</RouterLink
      >
      <label class="file">
        Import files
        <input type="file" accept=".toml,application/toml,text/plain" multiple @change="takeIn" />
      </label>
    </div>
    <table v-if="own.classes?.length" class="plain-table">
      <thead>
        <tr>
          <th scope="col">name</th>
          <th scope="col">kind</th>
          <th scope="col" class="when">saved</th>
          <th><span class="visually-hidden">actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ page, changed } in own.classes" :key="page.id">
          <td>
            <RouterLink :to="{ name: 'equipment-class', params: { id: page.id } }">{{
              page.label
            }}</RouterLink>
          </td>
          <td>{{ page.kind }}</td>
          <td class="when">{{ formatMoment(changed) }}</td>
          <td>
            <div class="row">
              <a :href="addresses.classFile(page.id)" download>Export</a>
              <Button text size="small" :aria-label="`Remove ${page.label}`" @click="remove(page.id)"
                >Remove</Button
              >
            </div>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="own.classes">Nothing yet. Begin from the nearest built-in class, or import a file.</p>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1.2rem;
  max-width: 48rem;
  margin: 0 auto;
  padding: 2rem 1.25rem 4rem;
}
h1 {
  font-size: 1.6rem;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 1.4rem;
  align-items: end;
}
.new {
  padding: 0.45rem 0.9rem;
  color: var(--frame-ink);
  font-weight: 600;
  text-decoration: none;
  background: var(--frame);
}
.file {
  display: grid;
  gap: 0.2rem;
}
.row {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  justify-content: flex-end;
}
/* In the hand, the name, its kind and the two actions are what fits. */
@media (max-width: 40rem) {
  .when {
    display: none;
  }
}
</style>
