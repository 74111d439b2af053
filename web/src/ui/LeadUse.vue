<script setup lang="ts">
import type { Use } from '@/api/client'

/** The result of a lead: what arrives at each contact, what of power gets through, what is wrong. */
defineProps<{ use: Use; but?: string }>()
</script>

<template>
  <div class="use">
    <p v-if="use.between" class="between">{{ use.between }}</p>
    <dl>
      <template v-for="item in use.hears" :key="item.channel">
        <dt>{{ item.channel || 'the socket' }}</dt>
        <dd>receives {{ item.words }}</dd>
      </template>
    </dl>
    <p v-if="use.mono" class="soft">{{ use.mono }}</p>
    <p v-for="power in use.powers" :key="power" class="soft">{{ power }}</p>
    <p v-for="fault in use.faults" :key="fault" class="fault">wrong: {{ fault }}</p>
    <p v-if="!use.faults.length" class="right">
      wired correctly<template v-if="but">, but: {{ but }}</template>
    </p>
  </div>
</template>

<style scoped>
.use {
  display: grid;
  gap: 0.15rem;
}
.between::first-letter {
  text-transform: uppercase;
}
.between,
.right,
.fault {
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 0.7rem;
}
dt {
  min-width: 3rem;
}
</style>
