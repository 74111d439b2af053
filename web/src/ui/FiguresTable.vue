<script setup lang="ts">
import type { DeviceDetail } from '@/api/client'
import { useJob } from '@/stores/job'
import KeptInput from './KeptInput.vue'

/** The figures of a device. A figure that is typed in counts as measured on this very device, ± 1 dB until said otherwise. */
const props = defineProps<{ device: string; figures: DeviceDetail['figures']; locked: boolean }>()
const job = useJob()

function set(path: string, event: Event) {
  const value = Number((event.target as HTMLInputElement).value)
  const figure = { value, tolerance: 1, provenance: 'measured' as const, source: 'USER' }
  void job.edit([{ kind: 'set-figure', device: props.device, path, figure }])
}
</script>

<template>
  <table class="plain-table">
    <tbody>
      <tr v-for="item in figures" :key="item.path">
        <th scope="row">{{ item.label }}</th>
        <td>
          <KeptInput
            class="plain-input num"
            type="number"
            step="any"
            :value="item.figure.value"
            :aria-label="item.label"
            :disabled="locked"
            @change="set(item.path, $event)"
          />
        </td>
        <td class="soft small">
          {{ item.unit }} ±{{ item.figure.tolerance }} {{ item.tolerance_unit }}, {{ item.figure.provenance }}
          <button
            v-if="item.own && !locked"
            type="button"
            @click="job.edit([{ kind: 'set-figure', device, path: item.path, figure: null }])"
          >
            back to class
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
th {
  font-weight: 400;
  font-size: 0.9rem;
}
input {
  max-width: 6rem;
}
button {
  padding: 0;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
