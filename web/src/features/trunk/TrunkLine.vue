<script setup lang="ts">
import Button from 'primevue/button'

import type { Described } from '@/api/client'
import TrunkTaps from './TrunkTaps.vue'
import { useTrunkLine } from './useTrunkLine'

/** What lies in the trunk, typed in a line or read from a table; what it means is shown before it is kept. */
const props = defineProps<{
  isFirst: boolean
  isBusy: boolean
  cases: readonly string[]
  add: (line: string) => Promise<boolean>
  read: (text: string) => Promise<boolean>
}>()
const { line, means, holds, problem, put, look, take } = useTrunkLine(props.add, props.read)

function chose(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (file) void look(file)
}
const told = (found: readonly Described[]) =>
  found
    .map(({ count, words, case: place }) => `${count} × ${words}${place ? ` in the ${place}` : ''}`)
    .join(', ')
</script>

<template>
  <section class="line no-print" aria-label="Put into the trunk">
    <form @submit.prevent="put">
      <label class="field"
        ><span>{{ isFirst ? 'What do you own?' : 'Put into the trunk' }}</span
        ><input
          v-model="line"
          class="plain-input"
          maxlength="1000"
          placeholder="6 XLR 5 m, 2 XLR 10 m, blue case"
      /></label>
      <Button type="submit" size="small" :disabled="isBusy || !means.length">Put in</Button>
      <label class="file small"
        >or a table (CSV)<input
          type="file"
          accept=".csv,text/csv"
          aria-label="A table of pieces, CSV"
          @change="chose"
      /></label>
    </form>
    <TrunkTaps :cases="cases" @line="(text) => (line = line.trim() ? `${line.trim()}, ${text}` : text)" />
    <p v-if="problem" class="is-stop small" role="alert">{{ problem }}</p>
    <p v-else-if="means.length" class="soft small" role="status">{{ told(means) }}</p>
    <div v-if="holds.length" class="table" role="status">
      <p class="small">
        {{ holds.length }} {{ holds.length === 1 ? 'line' : 'lines' }}: {{ told(holds.slice(0, 6))
        }}{{ holds.length > 6 ? ', …' : '' }}
      </p>
      <Button size="small" :disabled="isBusy" @click="take">Put all in</Button>
      <Button size="small" text @click="holds = []">Discard</Button>
    </div>
  </section>
</template>

<style scoped>
.line {
  display: grid;
  gap: 0.3rem;
}
form,
.table {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}
form .field {
  flex: 1 1 16rem;
}
.file {
  display: grid;
  gap: 0.2rem;
}
</style>
