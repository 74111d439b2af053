<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import { addresses } from '@/api/addresses'
import type { Stock } from '@/api/client'
import type { StockActions } from './useStock'

/** How a piece looks: for whoever packs it and has never seen it. */
const props = defineProps<{ piece: Stock['pieces'][number]; mayEdit: boolean; actions: StockActions }>()
const taken = ref(0) // another picture at the same address
async function take(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (file && (await props.actions.photograph(props.piece.id, file))) taken.value += 1
  field.value = ''
}
</script>

<template>
  <div class="photo">
    <img
      v-if="piece.has_photo"
      :src="`${addresses.piecePhoto(piece.id)}?n=${taken}`"
      :alt="`Photograph of ${piece.words}`"
    />
    <template v-if="mayEdit">
      <label class="tap shoot"
        >{{ piece.has_photo ? 'Take another photograph' : 'Take a photograph'
        }}<input class="visually-hidden" type="file" accept="image/*" capture="environment" @change="take"
      /></label>
      <Button v-if="piece.has_photo" size="small" text @click="actions.forgetPhoto(piece.id)"
        >Remove photograph</Button
      >
    </template>
  </div>
</template>

<style scoped>
.photo {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: end;
}
img {
  max-width: min(24rem, 100%);
  max-height: 18rem;
  border: 1px solid var(--line);
}
</style>
