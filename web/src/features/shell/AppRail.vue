<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useJob } from '@/stores/job'
import { THEMES, useSettings } from '@/stores/settings'
import { isOf, STATIONS } from './stations'

defineProps<{ job: string }>()
const emit = defineEmits<{ keys: []; history: [] }>()
const store = useJob()
const settings = useSettings()
const route = useRoute()
const router = useRouter()

/** Stops and cautions of each station; the gravest gives the count its weight. */
const counts = computed(() =>
  Object.fromEntries(
    STATIONS.map(({ name }) => {
      const mine = store.findings.filter((finding) => finding.station === name && finding.severity !== 'note')
      return [name, { count: mine.length, stop: mine.some(({ severity }) => severity === 'stop') }]
    }),
  ),
)
</script>

<template>
  <nav class="rail no-print" aria-label="Pages">
    <RouterLink class="name" to="/">Tidy <br />Trunk</RouterLink>
    <select
      class="pick"
      aria-label="Page"
      :value="route.name"
      @change="router.push({ name: ($event.target as HTMLSelectElement).value, params: { job } })"
    >
      <template v-for="{ name, label, more } in STATIONS" :key="name">
        <option :value="name">{{ label }}{{ counts[name]?.count ? ` (${counts[name].count})` : '' }}</option>
        <option v-for="page in more" :key="page.name" :value="page.name">– {{ page.label }}</option>
      </template>
    </select>
    <ul>
      <li v-for="station in STATIONS" :key="station.name">
        <RouterLink
          :to="{ name: station.name, params: { job } }"
          :class="{ here: isOf(station, route.name) }"
        >
          {{ station.label }}
          <span
            v-if="counts[station.name]?.count"
            class="count"
            :class="{ stop: counts[station.name]?.stop }"
            :aria-label="
              counts[station.name]?.count === 1 ? '1 finding' : `${counts[station.name]?.count} findings`
            "
            >{{ counts[station.name]?.count }}</span
          >
        </RouterLink>
        <ul v-if="station.more.length && isOf(station, route.name)" class="more">
          <li v-for="page in station.more" :key="page.name">
            <RouterLink
              :to="{ name: page.name, params: { job } }"
              :aria-current="page.name === route.name ? 'page' : undefined"
              >{{ page.label }}</RouterLink
            >
          </li>
        </ul>
      </li>
    </ul>
    <div class="foot">
      <button type="button" @click="emit('history')">History</button>
      <button type="button" @click="emit('keys')">Help</button>
      <label>
        <span class="visually-hidden">Theme</span>
        <select v-model="settings.theme">
          <option v-for="theme in THEMES" :key="theme.id" :value="theme.id">{{ theme.label }}</option>
        </select>
      </label>
    </div>
  </nav>
</template>

<style scoped>
.rail {
  grid-row: 1 / -1;
  display: flex;
  flex-direction: column;
  color: var(--frame-ink);
  background: var(--frame);
}
.pick {
  display: none; /* in the hand it stands for the list, of which it would show but the beginning */
}
.name {
  padding: 0.7rem 0.9rem 1rem;
  font-size: 1.15rem;
  font-weight: 700;
  line-height: 1.15;
}
a {
  color: inherit;
  text-decoration: none;
}
li a {
  display: flex;
  justify-content: space-between;
  padding: 0.5rem 0.9rem 0.5rem 0.8rem;
  border-left: 5px solid transparent;
}
li a:hover {
  border-left-color: var(--frame-soft);
}
li a.here {
  color: var(--ink);
  background: var(--paper);
  border-left-color: var(--pin);
  font-weight: 700;
}
.more a {
  justify-content: start;
  padding: 0.25rem 0.9rem 0.25rem 1.4rem;
  font-size: 0.95rem;
}
.more a[aria-current] {
  font-weight: 700;
  text-decoration: underline;
}
.count {
  min-width: 1.4rem;
  padding: 0 0.3rem;
  font-size: 0.85rem;
  font-weight: 600;
  text-align: center;
}
.count.stop {
  color: #fff;
  background: #b9321a;
  border-radius: 2px;
}
.foot {
  display: grid;
  gap: 0.3rem;
  margin-top: auto;
  padding: 0.8rem 0.9rem;
  font-size: 0.9rem;
}
.foot button,
.foot select {
  width: 100%;
  min-height: 1.9rem;
  padding: 0.15rem 0;
  color: inherit;
  text-align: left;
  background: var(--frame);
  border: 0;
  cursor: pointer;
}
@media (width < 700px) {
  .rail {
    grid-row: auto;
    flex-flow: row wrap;
    align-items: center;
  }
  .name {
    padding: 0.5rem 0.8rem;
  }
  .name br {
    display: none;
  }
  .pick {
    display: block;
    flex: 1;
    min-height: 44px;
    color: var(--ink);
    background: var(--paper);
    border: 0;
    border-left: 5px solid var(--pin);
  }
  ul {
    display: none;
  }
  .foot {
    display: flex;
    margin: 0 0 0 auto;
    padding: 0 0.6rem;
  }
  .foot select {
    min-width: 5.5rem;
  }
}
</style>
