<script setup lang="ts">
import { ref } from 'vue'

import { api } from '@/api/client'
import { useJob } from '@/stores/job'
import DevicePanel from '@/ui/DevicePanel.vue'
import DefaultsForm from './DefaultsForm.vue'
import DeviceList from './DeviceList.vue'
import SourceList from './SourceList.vue'

const job = useJob()
const device = ref('')
</script>

<template>
  <div class="page">
    <DefaultsForm />
    <SourceList />
    <DeviceList @open="device = $event" />
    <p v-if="job.newest" class="no-print">
      <a :href="api.planAddress(job.newest.job)" download="plan.json">Save the plan as a file</a>
    </p>
    <DevicePanel v-model:device="device" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 2rem;
  max-width: 62rem;
  padding: 1.25rem 1.25rem 3rem;
}
a {
  color: inherit;
}
</style>
