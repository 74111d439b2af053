<script setup lang="ts">
import { useBusyButtons } from '@/composables/useBusyButtons'
import { useSettings } from '@/stores/settings'

useSettings()
useBusyButtons()
</script>

<template>
  <RouterView />
</template>
