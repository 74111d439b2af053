<script setup lang="ts">
import Dialog from 'primevue/dialog'

import { KEYS } from './stations'

const visible = defineModel<boolean>('visible', { required: true })
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Keys" dismissable-mask style="width: 26rem">
    <dl>
      <template v-for="[key, words] in KEYS" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ words }}</dd>
      </template>
    </dl>
  </Dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
}
</style>
