<script setup lang="ts">
import Button from 'primevue/button'

import { addresses } from '@/api/addresses'
import { formatSize } from '@/format/levels'
import { formatMoment } from '@/format/time'
import { useCopies } from './useCopies'

/** Where the work of all jobs is kept besides: copies that make themselves, and one file with everything. */
const { kept, problem, isBusy, make } = useCopies()
</script>

<template>
  <main>
    <p><RouterLink to="/">All jobs</RouterLink></p>
    <h1>Backups</h1>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <section>
      <h2>Everything, to take along</h2>
      <p>
        All jobs with their history, walks, recordings and sounds in one file that was read again and checked.
        Put it on another disk: what lies on this machine goes with it.
      </p>
      <p>
        <a class="download" :href="addresses.everything" download>Download everything</a>
        <span class="soft small">with many sounds this takes a while</span>
      </p>
    </section>
    <section v-if="kept">
      <h2>Daily copies on this machine</h2>
      <p>
        Jobs, history, walks and what was found in recordings, without the sounds. One is made each day that
        the program runs; they are kept for 7 days, 4 weeks and 6 months.
      </p>
      <p v-if="kept.trouble" class="is-stop" role="alert">
        The last copy could not be made: {{ kept.trouble }}. It is tried again every ten minutes.
      </p>
      <p><Button outlined :loading="isBusy" @click="make">Make a copy now</Button></p>
      <table v-if="kept.copies.length" class="plain-table">
        <thead>
          <tr>
            <th scope="col">made</th>
            <th scope="col" class="num">size</th>
            <th><span class="visually-hidden">download</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="copy in kept.copies" :key="copy.name">
            <td>{{ formatMoment(copy.made) }}</td>
            <td class="num">{{ formatSize(copy.size) }}</td>
            <td><a :href="addresses.backup(copy.name)" download>Download</a></td>
          </tr>
        </tbody>
      </table>
      <p v-else>No copy has been made yet.</p>
    </section>
    <section>
      <h2>To restore one</h2>
      <p>
        Into an empty data folder, which leaves the present one as it is:
        <code>TIDY_TRUNK_HOME=new-folder ./tidy restore FILE</code>, then
        <code>TIDY_TRUNK_HOME=new-folder ./tidy serve</code>.
      </p>
    </section>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1.4rem;
  max-width: 40rem;
  margin: 0 auto;
  padding: 2rem 1.25rem 4rem;
}
section {
  display: grid;
  gap: 0.6rem;
}
h1 {
  font-size: 1.6rem;
}
h2 {
  font-size: 1.1rem;
}
.download {
  display: inline-block;
  margin-right: 0.8rem;
  padding: 0.45rem 0.9rem;
  color: var(--accent-ink);
  font-weight: 600;
  text-decoration: none;
  background: var(--accent);
  border-radius: var(--radius);
}
code {
  overflow-wrap: anywhere;
}
td,
th {
  padding-right: 2rem;
}
</style>
