<script setup lang="ts">
import { ref } from 'vue'

import DevicePanel from '@/ui/DevicePanel.vue'
import DefaultsForm from './DefaultsForm.vue'
import OwnTargets from './OwnTargets.vue'
import DeviceList from './DeviceList.vue'
import PlanFile from './PlanFile.vue'
import SourceList from './SourceList.vue'

const device = ref('')
</script>

<template>
  <div class="page">
    <DefaultsForm />
    <SourceList />
    <DeviceList @open="device = $event" />
    <OwnTargets />
    <PlanFile />
    <DevicePanel v-model:device="device" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2rem;
  max-width: 68rem;
  padding: 1.25rem 1.25rem 3rem;
}
</style>
