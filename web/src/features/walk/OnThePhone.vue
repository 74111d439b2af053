<script setup lang="ts">
import { addresses } from '@/api/addresses'
import { useNearby } from './useNearby'

/** How a telephone comes to this page: an address with a key, and a square of dots for its camera. */
const page = location.pathname
const { link, isKnown } = useNearby(page)
</script>

<template>
  <details v-if="isKnown" class="no-print">
    <summary class="small">On a telephone</summary>
    <p v-if="!link" class="small">
      This machine answers only itself. End it and start it with <code>./tidy serve --nearby</code>; then an
      address with a key stands here.
    </p>
    <template v-else>
      <img
        :src="addresses.nearbyCode(page)"
        alt="The address of this page as a square of dots"
        width="180"
        height="180"
      />
      <p class="small">
        Or type <a :href="link">{{ link }}</a>. Who has it can read and change every job: use the set's own
        network, not a guest's. What the telephone marks while it is out of reach is delivered as soon as it
        is back; do not reload the page until then.
      </p>
    </template>
  </details>
</template>

<style scoped>
summary {
  min-height: 2.75rem;
  padding: 0.6rem 0;
  cursor: pointer;
}
img {
  background: #fff;
}
p {
  overflow-wrap: anywhere;
}
</style>
