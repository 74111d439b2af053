<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** Where else the source of this track is kept, and what that is good for. */
defineProps<{ safeties: Ladder['safeties']; advice: string }>()
</script>

<template>
  <section v-if="safeties.length || advice">
    <h2>Other recordings of this source</h2>
    <p v-if="advice">{{ advice }}</p>
    <table v-if="safeties.length" class="plain-table">
      <tbody>
        <tr v-for="item in safeties" :key="item.track">
          <th scope="row">
            <RouterLink :to="{ name: 'levels', params: { track: item.track } }">{{ item.label }}</RouterLink>
          </th>
          <td class="num">{{ formatLevel(item.average_dbfs) }}</td>
          <td>{{ item.words }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1.05rem;
}
th {
  font-weight: 400;
}
a {
  color: inherit;
}
</style>
