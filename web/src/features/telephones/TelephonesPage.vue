<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { addresses } from '@/api/addresses'
import type { Access } from '@/api/client'
import { formatMoment } from '@/format/time'
import MadeKeyBox from './MadeKeyBox.vue'
import { ACCESSES, useTelephones } from './useTelephones'

/** Which telephones are let in, what each may do, and who was here last. */
const route = useRoute()
const page = computed(() => (typeof route.query.page === 'string' ? route.query.page : '/'))
const { guests, made, problem, isBusy, make, renew, rename, revoke } = useTelephones(page.value)
const name = ref('')
const access = ref<Access>('walk')
const labels = Object.fromEntries(ACCESSES.map(({ value, label }) => [value, label]))

async function begin() {
  if (await make(name.value, access.value)) name.value = ''
}
</script>

<template>
  <main>
    <p><RouterLink :to="page">Back</RouterLink></p>
    <h1>Telephones</h1>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <template v-if="guests">
      <p v-if="!guests.network.address">
        This machine answers only itself. End it and start it with <code>./tidy serve --nearby</code>; then
        telephones on the same network can be let in.
      </p>
      <template v-else>
        <form @submit.prevent="begin">
          <label class="field">
            Whose telephone
            <input v-model="name" required maxlength="60" autocomplete="off" />
          </label>
          <fieldset>
            <legend>May</legend>
            <label v-for="item in ACCESSES" :key="item.value" class="choice">
              <input v-model="access" type="radio" name="access" :value="item.value" />
              <span
                ><strong>{{ item.label }}</strong> <span class="soft small">{{ item.does }}</span></span
              >
            </label>
          </fieldset>
          <Button type="submit" :loading="isBusy" label="Make a key" />
        </form>
        <MadeKeyBox v-if="made" :key="made.link" :made="made" :fingerprint="guests.network.fingerprint" />
      </template>
      <section v-if="guests.keys.length">
        <h2>Keys</h2>
        <ul class="keys">
          <li v-for="key in guests.keys" :key="key.id">
            <input
              :value="key.name"
              :aria-label="`Name of the key of ${key.name}`"
              maxlength="60"
              autocomplete="off"
              @change="rename(key.id, ($event.target as HTMLInputElement).value)"
            />
            <span>{{ labels[key.access] }}</span>
            <span class="soft small">
              {{ key.seen ? `last seen ${formatMoment(key.seen)}, ${key.address}` : 'not used yet' }}
            </span>
            <span class="acts">
              <Button
                size="small"
                outlined
                :disabled="!guests.network.address"
                :aria-label="`Renew the key of ${key.name}`"
                label="Renew"
                @click="renew(key.id)"
              />
              <Button
                size="small"
                outlined
                :aria-label="`Revoke the key of ${key.name}`"
                label="Revoke"
                @click="revoke(key.id)"
              />
            </span>
          </li>
        </ul>
        <p class="soft small">
          A revoked or renewed key stops working at once. Lost a telephone? Revoke its key.
        </p>
      </section>
      <section v-if="guests.network.fingerprint">
        <h2>Encryption</h2>
        <p>
          The certificate is this machine's own, so a telephone warns once. Compare what it shows as SHA-256:
        </p>
        <p class="fingerprint">{{ guests.network.fingerprint }}</p>
        <p>
          To be warned no more, and to have the checklist open without a connection, have the telephone trust
          <a :href="addresses.certificate" download>the certificate of this set</a>; it vouches for addresses
          of private networks alone.
        </p>
      </section>
    </template>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1.4rem;
  max-width: 46rem;
  margin: 0 auto;
  padding: 2rem 1.25rem 4rem;
}
h1 {
  font-size: 1.6rem;
}
h2 {
  font-size: 1.1rem;
}
section,
form {
  display: grid;
  gap: 0.7rem;
  justify-items: start;
}
fieldset {
  display: grid;
  gap: 0.2rem;
  padding: 0;
  border: 0;
}
.field {
  display: grid;
  gap: 0.25rem;
}
.choice {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  min-height: 2.75rem;
}
.keys {
  display: grid;
  width: 100%;
  padding: 0;
  list-style: none;
}
.keys li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
.acts {
  display: flex;
  gap: 0.5rem;
  margin-left: auto;
}
.fingerprint {
  font-variant-numeric: tabular-nums;
  overflow-wrap: anywhere;
}
</style>
