<script setup lang="ts">
import Button from 'primevue/button'

import type { Rigs } from '@/api/client'
import RigPicture from './RigPicture.vue'

/** Rigs side by side: what one gives and asks for, row by row; what stands out is bold. */
defineProps<{ found: Rigs; isWhole: boolean }>()
const emit = defineEmits<{ use: [approach: string] }>()
const COUNT = [
  'No rig does',
  'One rig that does',
  'Two rigs that do',
  'Three rigs that do',
  'Four rigs that do',
]
</script>

<template>
  <section class="rigs" aria-label="Rigs" :aria-busy="!isWhole">
    <div class="scrolls">
      <table>
        <thead>
          <tr>
            <th scope="col">
              <span v-if="isWhole">{{ COUNT[found.rigs.length] }} it</span>
              <span v-else role="status">{{
                found.rigs.length ? 'The others are worked out…' : 'Rigs are worked out…'
              }}</span>
            </th>
            <th v-for="rig in found.rigs" :key="rig.approach" scope="col">
              <h2>{{ rig.title }}</h2>
              <RigPicture :picture="rig.picture" :label="`${rig.title}, drawn from the microphones on`" />
            </th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">In short</th>
            <td v-for="rig in found.rigs" :key="rig.approach" class="small">{{ rig.reason }}</td>
          </tr>
          <tr v-for="(row, at) in found.rows" :key="row.id">
            <th scope="row">{{ row.label }}</th>
            <td v-for="rig in found.rigs" :key="rig.approach" :data-title="rig.title">
              <strong v-if="rig.strong[at]">{{ rig.cells[at] }}</strong>
              <template v-else>{{ rig.cells[at] }}</template>
            </td>
          </tr>
        </tbody>
        <tfoot class="no-print">
          <tr>
            <td></td>
            <td v-for="(rig, at) in found.rigs" :key="rig.approach">
              <Button :outlined="at > 0" @click="emit('use', rig.approach)">Use this rig</Button>
            </td>
          </tr>
        </tfoot>
      </table>
    </div>
  </section>
</template>

<style scoped>
table {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
}
th,
td {
  padding: 0.45rem 0.9rem 0.45rem 0;
  text-align: left;
  vertical-align: top;
}
thead th {
  border-bottom: 2px solid var(--line-strong);
}
thead th:first-child,
tbody th {
  width: 9.5rem;
  color: var(--ink-soft);
  font-weight: 400;
}
tbody th,
tbody td {
  border-bottom: 1px solid var(--line);
}
h2 {
  min-height: 2.8em; /* two lines, so that the pictures stand side by side */
  font-size: 1.05rem;
}
@media (width < 700px) {
  table {
    min-width: 46rem;
  }
  tbody th,
  thead th:first-child {
    position: sticky;
    left: 0;
    width: 6.5rem;
    min-width: 0;
    background: var(--paper);
  }
}
</style>
