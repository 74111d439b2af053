<script setup lang="ts">
import { computed } from 'vue'

import type { MadeKey } from '@/api/client'

/** A key in the only moment in which it is known: for the camera of a telephone, and to be typed. */
const props = defineProps<{ made: MadeKey; fingerprint: string }>()
const picture = computed(() => `data:image/svg+xml,${encodeURIComponent(props.made.code)}`)
</script>

<template>
  <section class="made" aria-live="polite">
    <img :src="picture" alt="The link for this telephone as a square of dots" width="220" height="220" />
    <div>
      <h2>For {{ made.guest.name }}</h2>
      <p>Point the telephone's camera at the dots, or type the link:</p>
      <p class="link">
        <a :href="made.link">{{ made.link }}</a>
      </p>
      <p class="small">
        It is shown once, and lets one telephone in, within a day. That one stays let in for 30 days, or until
        its key is revoked.
        <template v-if="!fingerprint"
          >Nothing is encrypted: whoever listens on this network reads along.</template
        >
      </p>
      <p v-if="fingerprint" class="small">
        It warns of the certificate, which is this machine's own. Go on only where its SHA-256 is
        <span class="link">{{ fingerprint }}</span>
      </p>
    </div>
  </section>
</template>

<style scoped>
.made {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 1.4rem;
  padding: 1rem 0;
  border-block: 1px solid var(--line);
}
.made > div {
  display: grid;
  flex: 1 1 16rem;
  gap: 0.5rem;
  align-content: start;
}
img {
  background: #fff;
}
h2 {
  font-size: 1.1rem;
}
.link {
  overflow-wrap: anywhere;
}
</style>
