<script setup lang="ts">
import { useRoute } from 'vue-router'

import { useMe } from '@/stores/me'

/** What one comes with, and where it is answered. */
const DOORS = [
  { name: 'jobs', label: 'Plan a shoot', does: 'whole rigs for who is heard and what films' },
  { name: 'connect', label: 'Connect two things', does: 'cable, adapter or attenuator, and what to set' },
  { name: 'check', label: 'Check a recording', does: 'level, noise, hum, clipping, timecode' },
  { name: 'sync-files', label: 'Sync files', does: 'where recorder and camera files meet' },
] as const
const route = useRoute()
const mine = useMe()
</script>

<template>
  <div class="front">
    <header class="no-print">
      <RouterLink to="/" class="name">Tidy Trunk</RouterLink>
      <p class="soft">Cables, levels and sync, from the microphone to the camera.</p>
      <nav aria-label="More">
        <RouterLink to="/tools">Tools</RouterLink>
        <RouterLink to="/equipment">My equipment</RouterLink>
        <RouterLink to="/trunk">Trunk</RouterLink>
        <RouterLink to="/drill">Drill</RouterLink>
        <template v-if="mine.isOwner">
          <RouterLink to="/telephones">Telephones</RouterLink>
          <RouterLink to="/backups">Backups</RouterLink>
        </template>
      </nav>
    </header>
    <nav class="doors no-print" aria-label="Begin with">
      <RouterLink
        v-for="door in DOORS"
        :key="door.name"
        :to="{ name: door.name }"
        :class="{ here: route.name === door.name }"
        :aria-current="route.name === door.name ? 'page' : undefined"
      >
        <strong>{{ door.label }}</strong>
        <span class="small">{{ door.does }}</span>
      </RouterLink>
    </nav>
    <main><RouterView /></main>
    <footer class="soft small">
      The program advises. A test recording and headphones decide; local codes and licensed people rule where
      mains, radio or heights are concerned.
    </footer>
  </div>
</template>

<style scoped>
.front {
  display: grid;
  gap: 1.1rem;
  max-width: 78rem;
  min-height: 100vh;
  margin: 0 auto;
  padding: 1.2rem 1.5rem 2rem;
  grid-template-rows: auto auto 1fr auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.5rem;
  align-items: baseline;
}
.name {
  color: var(--ink);
  font-size: 1.3rem;
  font-weight: 700;
  text-decoration: none;
}
header nav {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1.5rem;
  margin-left: auto;
}
.doors {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  border-block: 1px solid var(--line-strong);
}
.doors a {
  display: grid;
  gap: 0.1rem;
  align-content: start;
  padding: 0.6rem 0.9rem;
  color: var(--ink);
  text-decoration: none;
  border-left: 5px solid transparent;
}
.doors a:hover {
  border-left-color: var(--line);
}
.doors a.here {
  background: var(--chalk);
  border-left-color: var(--pin);
}
.doors strong {
  font-size: 1.1rem;
}
.doors span {
  color: var(--ink-soft);
}
main {
  min-width: 0;
}
@media (width < 700px) {
  .front {
    padding: 0.8rem 1rem 2rem;
  }
  .doors {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  header nav {
    margin-left: 0;
  }
}
</style>
