<script setup lang="ts">
import Button from 'primevue/button'

import { addresses } from '@/api/addresses'
import { formatLevel } from '@/format/levels'
import { formatMoment } from '@/format/time'
import { useEquipment } from './useEquipment'

/** Devices and cables of one's own: they belong to no job, and any job can take them. */
const { own, pairs, problem, last, takeIn, remove, undo, test, forget } = useEquipment()
</script>

<template>
  <main>
    <p><RouterLink to="/">All jobs</RouterLink></p>
    <h1>My equipment</h1>
    <p>
      Your own devices and cables. Every job offers them before the built-in ones, and keeps its own copy.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="last" role="status">{{ last.words }} <Button text size="small" @click="undo">Undo</Button></p>
    <div class="actions">
      <RouterLink class="new" :to="{ name: 'equipment-class', params: { id: 'new' } }"
        >Describe a device or cable</RouterLink
      >
      <label class="file">
        Import files
        <input
          type="file"
          accept=".toml,.zip,application/toml,application/zip,text/plain"
          multiple
          @change="takeIn"
        />
      </label>
      <a v-if="own.classes?.length" class="all" :href="addresses.allClasses" download>Export all</a>
    </div>
    <table v-if="own.classes?.length" class="plain-table">
      <thead>
        <tr>
          <th scope="col">name</th>
          <th scope="col" class="when">kind</th>
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
          <td class="when">{{ page.kind }}</td>
          <td class="when">{{ formatMoment(changed) }}</td>
          <td>
            <div class="row">
              <Button
                v-if="page.of === 'device'"
                text
                size="small"
                :aria-label="`Test ${page.label}`"
                @click="test(page.id)"
                >Test</Button
              >
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
    <section v-if="pairs.length" class="pairs">
      <h2>Pairs that were lined up</h2>
      <p class="soft">
        The next job with the same sockets, positions and cables offers what was found, to be verified.
      </p>
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">from, to</th>
            <th scope="col">by</th>
            <th scope="col" class="num">against the figures</th>
            <th scope="col" class="when">read</th>
            <th><span class="visually-hidden">actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="pair in pairs" :key="pair.key">
            <td>{{ pair.sender }} → {{ pair.receiver }}</td>
            <td>{{ pair.cables.join(' + ') || 'plugged in directly' }}</td>
            <td class="num">{{ pair.off_db > 0 ? '+' : '' }}{{ formatLevel(pair.off_db, 1) }} dB</td>
            <td class="when">{{ formatMoment(pair.when) }}, {{ pair.job }}</td>
            <td>
              <Button
                text
                size="small"
                :aria-label="`Delete ${pair.sender} into ${pair.receiver}`"
                @click="forget(pair.key)"
                >Delete</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </section>
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
h2 {
  font-size: 1.2rem;
}
.pairs {
  display: grid;
  gap: 0.5rem;
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
.all {
  padding-bottom: 0.3rem;
}
.row {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  justify-content: flex-end;
}
/* In the hand, the name and the actions are what fits. */
@media (max-width: 40rem) {
  .when {
    display: none;
  }
}
</style>
