<script setup lang="ts">
import { useSettings } from '@/stores/settings'

useSettings()
</script>

<template>
  <RouterView />
</template>
