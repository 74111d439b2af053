<script setup lang="ts">
import { useBusyButtons } from '@/composables/useBusyButtons'
import { useMe } from '@/stores/me'
import { useSettings } from '@/stores/settings'

useSettings()
void useMe().look()
useBusyButtons()
</script>

<template>
  <RouterView />
</template>
