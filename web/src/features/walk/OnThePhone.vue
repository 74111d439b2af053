<script setup lang="ts">
import { useMe } from '@/stores/me'

/** How a telephone comes to this page: by a key, which is made on a page of its own. */
const page = location.pathname
const mine = useMe()
</script>

<template>
  <p v-if="mine.isOwner" class="no-print small">
    <RouterLink :to="{ name: 'telephones', query: { page } }">Open this page on a telephone</RouterLink>
    <span class="soft"> What is marked while it is out of reach is delivered as soon as it is back. </span>
  </p>
</template>
