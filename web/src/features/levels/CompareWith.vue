<script setup lang="ts">
import Button from 'primevue/button'

import type { Ladder, MatchingOption } from '@/api/client'
import { formatLevel } from '@/format/levels'
import type { Overlay } from '@/ui/ladderShape'
import { SCHOOLS, type Compared } from './useCompared'

/** Chooses what a track is compared with, and shows the figures of both. */
const props = defineProps<{
  ladder: Ladder
  other: Overlay | null
  options: readonly MatchingOption[]
  tracks: readonly { id: string; label: string }[]
}>()
const compared = defineModel<Compared>({ required: true })
const emit = defineEmits<{ hold: [] }>()

const bestFor = (school: 'clean' | 'guide') => props.options.find(({ best_for }) => best_for.includes(school))
const FIGURES = [
  { name: 'average', read: (item: Ladder) => formatLevel(item.average_dbfs, 1) },
  { name: 'peaks', read: (item: Ladder) => formatLevel(item.peak_dbfs, 1) },
  { name: 'noise, A-weighted', read: (item: Ladder) => formatLevel(item.noise_a_dbfs, 1) },
  { name: 'clips by, dB', read: (item: Ladder) => formatLevel(item.over_db || null, 1) },
]
</script>

<template>
  <section :class="{ 'no-print': !other }" aria-label="Comparison">
    <label class="soft no-print">
      Compare with
      <select v-model="compared">
        <option value="">nothing</option>
        <option value="before">as it was</option>
        <template v-for="(words, school) in SCHOOLS" :key="school">
          <option v-if="bestFor(school)" :value="school">{{ words }}: {{ bestFor(school)?.label }}</option>
        </template>
        <option
          v-for="item in tracks.filter(({ id }) => id !== ladder.track)"
          :key="item.id"
          :value="`track:${item.id}`"
        >
          {{ item.label }}
        </option>
      </select>
    </label>
    <Button
      v-if="compared === 'before'"
      class="no-print"
      text
      size="small"
      title="What the track holds now becomes what it is compared with"
      @click="emit('hold')"
      >Compare with now</Button
    >
    <table v-if="other" class="plain-table">
      <thead>
        <tr>
          <th scope="col">dBFS</th>
          <th v-for="{ name } in FIGURES" :key="name" scope="col" class="num">{{ name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th scope="row">now</th>
          <td v-for="{ name, read } in FIGURES" :key="name" class="num">{{ read(ladder) }}</td>
        </tr>
        <tr>
          <th scope="row">{{ other.label }}</th>
          <td
            v-for="{ name, read } in FIGURES"
            :key="name"
            class="num"
            :class="{ differs: read(other.ladder) !== read(ladder) }"
          >
            {{ read(other.ladder) }}
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  padding: 0.4rem 0;
}
select {
  max-width: 100%;
  min-height: 2.2rem;
}
.plain-table {
  max-width: 44rem;
}
.differs {
  font-weight: 700;
}
</style>
