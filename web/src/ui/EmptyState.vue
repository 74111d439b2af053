<script setup lang="ts">
/** What to do first, with one button in the slot. */
defineProps<{ title: string; text: string }>()
</script>

<template>
  <section class="empty">
    <h2>{{ title }}</h2>
    <p>{{ text }}</p>
    <slot />
  </section>
</template>

<style scoped>
.empty {
  display: grid;
  justify-items: start;
  gap: 0.8rem;
  max-width: 34rem;
  padding: 3rem 0;
}
h2 {
  font-size: 1.3rem;
}
</style>
