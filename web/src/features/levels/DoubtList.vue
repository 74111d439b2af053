<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** The figures behind the level, the most doubtful first, and the one measurement that would settle most. */
defineProps<{ doubts: Ladder['doubts']; first: string; track: string }>()
</script>

<template>
  <section v-if="doubts.length">
    <h2>Uncertainty</h2>
    <p>
      {{ first }}
      <RouterLink class="no-print" :to="{ name: 'line-up', params: { track } }">Line it up</RouterLink>
    </p>
    <table class="plain-table">
      <tbody>
        <tr v-for="doubt in doubts" :key="doubt.what">
          <th scope="row">
            {{ doubt.what }} <span class="soft small">{{ doubt.provenance }}</span>
          </th>
          <td class="num">±{{ formatLevel(doubt.tolerance_db, 1) }} dB</td>
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
</style>
