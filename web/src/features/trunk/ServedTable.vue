<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Stock, Trunk } from '@/api/client'

/** Each cable that the job needs, and the piece that serves it; another one can be chosen, and what that costs is seen. */
const props = defineProps<{
  trunk: Trunk
  stock: Stock | null
  chosen: Readonly<Record<string, readonly string[]>>
  mayEdit: boolean
}>()
const emit = defineEmits<{ choose: [need: string, pieces: string[]] }>()
const opened = ref('')
const cables = computed(
  () => props.stock?.pieces.filter(({ kind, fault }) => kind === 'cable' && !fault) ?? [],
)

function chose(need: string, event: Event) {
  const piece = (event.target as HTMLSelectElement).value
  emit('choose', need, piece ? [piece] : [])
}
</script>

<template>
  <table v-if="trunk.served.length" class="plain-table">
    <thead>
      <tr>
        <th scope="col">cable</th>
        <th scope="col">needed</th>
        <th scope="col">{{ trunk.has_stock ? 'piece' : '' }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="item in trunk.served" :key="item.need">
        <td>{{ item.runs.join(', ') }}</td>
        <td>{{ item.label }}</td>
        <td v-if="trunk.has_stock" :class="{ 'is-stop': item.is_short }">
          {{ item.words }}
          <span v-if="item.spare" class="soft small">spare: {{ item.spare }}&#32;</span>
          <span v-if="item.is_unspared" class="is-caution small"
            >no spare left, and it happens only once</span
          >
          <template v-if="mayEdit && cables.length">
            <label v-if="opened === item.need || item.chosen" class="choice no-print"
              ><span class="visually-hidden"
                >Piece for cable {{ item.runs.join(', ') }}, {{ item.label }}</span
              ><select :value="chosen[item.need]?.[0] ?? ''" @change="chose(item.need, $event)">
                <option value="">as the trunk does best</option>
                <option v-for="piece in cables" :key="piece.id" :value="piece.id">
                  {{ piece.words }}{{ piece.case ? `, ${piece.case}` : '' }}
                </option>
              </select></label
            >
            <button
              v-else
              type="button"
              class="other no-print"
              :aria-label="`Another piece for cable ${item.runs.join(', ')}, ${item.label}`"
              @click="opened = item.need"
            >
              another
            </button>
          </template>
        </td>
        <td v-else></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.other {
  margin-left: 0.4rem;
  padding: 0;
  font-size: 0.85rem;
  color: var(--ink-soft);
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
.choice select {
  max-width: 100%;
}
td {
  overflow-wrap: anywhere;
}
</style>
