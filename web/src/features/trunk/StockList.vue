<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Stock } from '@/api/client'
import KeptInput from '@/ui/KeptInput.vue'
import CableTest from './CableTest.vue'
import PiecePhoto from './PiecePhoto.vue'
import type { StockActions } from './useStock'

/** Every piece: where it lies, its number, when it was tested, what is wrong with it. */
const props = defineProps<{
  stock: Stock
  mayEdit: boolean
  actions: StockActions
}>()
const sought = ref('')
const tested = ref('')
const shown = ref('')
type Piece = Stock['pieces'][number]
const MOST = 60
const found = computed(() => {
  const words = sought.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  const says = (piece: Piece) => `${piece.words} ${piece.case} ${piece.number} ${piece.fault}`.toLowerCase()
  return props.stock.pieces.filter((piece) => words.every((word) => says(piece).includes(word)))
})
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()
const change = (piece: Piece, what: 'case' | 'number' | 'fault', event: Event) =>
  props.actions.change(piece.id, { [what]: value(event) })
</script>

<template>
  <section class="stock" aria-label="Everything in the trunk">
    <p>
      <label class="small"
        >Look for a piece&#32;<input
          v-model="sought"
          class="plain-input"
          maxlength="80"
          placeholder="XLR 10 blue" /></label
      >&#32; <a class="small" href="/api/trunk/table.csv">Table (CSV)</a>
    </p>
    <div class="scrolls">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">piece</th>
            <th scope="col">number</th>
            <th scope="col">case</th>
            <th scope="col">tested</th>
            <th scope="col">fault</th>
            <th scope="col"><span class="visually-hidden">actions</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="piece in found.slice(0, MOST)" :key="piece.id">
            <tr>
              <th scope="row">
                <KeptInput
                  v-if="piece.kind !== 'cable' && piece.kind !== 'device'"
                  class="plain-input num count"
                  type="number"
                  min="1"
                  max="999"
                  :aria-label="`How many: ${piece.words}`"
                  :value="piece.count"
                  :disabled="!mayEdit"
                  @change="actions.change(piece.id, { count: Math.round(Number(value($event))) })"
                />
                {{ piece.words }}
              </th>
              <td>
                <KeptInput
                  class="plain-input short"
                  :aria-label="`Number of ${piece.words}`"
                  :value="piece.number"
                  :disabled="!mayEdit"
                  @change="change(piece, 'number', $event)"
                />
              </td>
              <td>
                <KeptInput
                  class="plain-input"
                  :aria-label="`Case of ${piece.words}`"
                  :value="piece.case"
                  :disabled="!mayEdit"
                  @change="change(piece, 'case', $event)"
                />
              </td>
              <td>{{ piece.tested }}</td>
              <td>
                <KeptInput
                  class="plain-input"
                  :aria-label="`Fault of ${piece.words}`"
                  :value="piece.fault"
                  :disabled="!mayEdit"
                  @change="change(piece, 'fault', $event)"
                />
              </td>
              <td class="acts">
                <Button
                  v-if="piece.kind === 'cable' && mayEdit"
                  size="small"
                  text
                  :aria-expanded="tested === piece.id"
                  :aria-label="`Test ${piece.words}`"
                  @click="tested = tested === piece.id ? '' : piece.id"
                  >Test</Button
                >
                <Button
                  v-if="mayEdit || piece.has_photo"
                  size="small"
                  text
                  :aria-expanded="shown === piece.id"
                  :aria-label="`Photograph of ${piece.words}`"
                  @click="shown = shown === piece.id ? '' : piece.id"
                  >{{ piece.has_photo ? 'Photograph ✓' : 'Photograph' }}</Button
                >
                <Button
                  v-if="mayEdit"
                  size="small"
                  text
                  :aria-label="`Take ${piece.words} out for good`"
                  @click="actions.remove(piece.id)"
                  >×</Button
                >
              </td>
            </tr>
            <tr v-if="shown === piece.id">
              <td colspan="6"><PiecePhoto :piece="piece" :may-edit="mayEdit" :actions="actions" /></td>
            </tr>
            <tr v-if="tested === piece.id">
              <td colspan="6"><CableTest :piece="piece" :looked="actions.looked" /></td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-if="found.length > MOST" class="soft small">{{ found.length - MOST }} more: look for them.</p>
  </section>
</template>

<style scoped>
.stock {
  display: grid;
  gap: 0.5rem;
  padding-top: 0.5rem;
}
.plain-input {
  min-width: 6rem;
}
p .plain-input {
  width: min(16rem, 100%);
}
.plain-input.short {
  min-width: 3.5rem;
  max-width: 5rem;
}
th[scope='row'] {
  font-weight: 400;
}
.plain-input.count {
  min-width: 3.5rem;
  max-width: 4.5rem;
}
.acts {
  white-space: nowrap;
}
</style>
