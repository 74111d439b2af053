<script setup lang="ts">
import Button from 'primevue/button'
import Drawer from 'primevue/drawer'
import { computed, ref, watch } from 'vue'

import { useDevice } from '@/composables/useDevice'
import { useJob } from '@/stores/job'
import ControlField from './ControlField.vue'
import FiguresTable from './FiguresTable.vue'
import KeptInput from './KeptInput.vue'

/** One device with all that can be set on it: its ports, controls, routing and figures. */
const device = defineModel<string>('device', { required: true })
const job = useJob()
const known = computed(() => job.newest?.devices.some((item) => item.id === device.value) ?? false)
watch(known, (stands) => {
  if (!stands) device.value = ''
})
const detail = useDevice(device)

/** Ports with a plug in them first: they are what is being set up. */
const ports = computed(() =>
  [...(detail.value?.ports ?? [])].sort((one, other) => other.runs.length - one.runs.length),
)
const controlsOf = (port: string) => detail.value?.controls.filter((control) => control.port === port) ?? []

function rename(event: Event) {
  const label = (event.target as HTMLInputElement).value.trim()
  if (label && label !== detail.value?.label)
    void job.edit([{ kind: 'rename-device', device: device.value, label }])
}

const className = ref('')
async function copyClass() {
  const edit = { kind: 'copy-class' as const, device: device.value, label: className.value.trim() }
  if (await job.edit([edit])) className.value = ''
}

function route(bus: string, event: Event) {
  const chosen = [...(event.target as HTMLSelectElement).selectedOptions].map(({ value }) => value)
  void job.edit([{ kind: 'route-bus', device: device.value, bus, inputs: chosen }])
}
</script>

<template>
  <Drawer
    :visible="Boolean(device)"
    position="right"
    style="width: 30rem"
    @update:visible="(shown: boolean) => shown || (device = '')"
  >
    <template #header
      ><h2>{{ detail?.label }}</h2></template
    >
    <div v-if="detail" class="panel">
      <p class="soft">{{ detail.class_label }}. {{ detail.blurb }}.</p>
      <label class="field">
        <span>Name</span>
        <KeptInput :value="detail.label" maxlength="80" :disabled="job.readOnly" @change="rename" />
      </label>
      <ControlField
        v-for="control in controlsOf('')"
        :key="control.id"
        :control="control"
        :disabled="job.readOnly"
        @set="job.edit([{ kind: 'set-control', device: detail.id, control: control.id, value: $event }])"
      />
      <details v-for="port in ports" :key="port.id" :open="port.runs.length > 0" :aria-label="port.label">
        <summary>
          <strong>{{ port.label }}</strong>
          <span class="soft small">{{ port.direction }}, {{ port.plug }}, {{ port.circuit_words }}</span>
        </summary>
        <ControlField
          v-for="control in controlsOf(port.id)"
          :key="control.id"
          :control="control"
          :disabled="job.readOnly"
          @set="job.edit([{ kind: 'set-control', device: detail.id, control: control.id, value: $event }])"
        />
        <p v-if="port.takes_cable && !port.runs.length" class="soft small">
          Nothing plugged in. Type a cable: {{ detail.label.toLowerCase() }}
          {{ port.direction === 'out' ? `${port.label} to …` : port.label }}
        </p>
      </details>
      <details v-if="detail.channels.length && detail.routing.length">
        <summary><strong>Tracks and mixes</strong></summary>
        <label v-for="bus in detail.routing" :key="bus.bus" class="field">
          <span>{{ bus.label }}{{ bus.recorded ? ', recorded' : '' }}, from</span>
          <select
            :key="job.refusals"
            multiple
            :size="3"
            :disabled="job.readOnly"
            @change="route(bus.bus, $event)"
          >
            <option
              v-for="channel in detail.channels"
              :key="channel"
              :value="channel"
              :selected="bus.inputs.includes(channel)"
            >
              {{ channel }}
            </option>
          </select>
        </label>
      </details>
      <details>
        <summary>
          <strong>Figures</strong> <span class="soft small">where each number comes from</span>
        </summary>
        <dl v-if="detail.facts.length">
          <template v-for="fact in detail.facts" :key="fact.name">
            <dt class="soft">{{ fact.name }}</dt>
            <dd>{{ fact.words }}</dd>
          </template>
        </dl>
        <FiguresTable :device="detail.id" :figures="detail.figures" :locked="job.readOnly" />
        <form class="own" @submit.prevent="copyClass">
          <label class="field">
            <span>A class of your own with these figures, called</span>
            <input v-model="className" maxlength="80" required :disabled="job.readOnly" />
          </label>
          <Button type="submit" outlined size="small" :disabled="!className.trim() || job.readOnly"
            >Save class</Button
          >
        </form>
      </details>
      <p class="foot">
        <Button
          outlined
          size="small"
          :disabled="job.readOnly"
          @click="job.edit([{ kind: 'copy-device', device: detail.id, label: `${detail.label} copy` }])"
          >Copy</Button
        >
        <Button
          outlined
          size="small"
          :disabled="job.readOnly"
          @click="job.edit([{ kind: 'remove-device', device: detail.id }])"
          >Remove with its cables</Button
        >
      </p>
    </div>
  </Drawer>
</template>

<style scoped>
.panel,
details[open] {
  display: grid;
  gap: 0.7rem;
}
h2 {
  font-size: 1.15rem;
}
details {
  padding: 0.4rem 0;
  border-top: 1px solid var(--line);
}
summary strong {
  margin-right: 0.6rem;
}
dl {
  display: grid;
  grid-template-columns: 8rem 1fr;
  gap: 0.2rem 0.8rem;
}
.own {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.6rem;
  align-items: end;
}
.foot {
  display: flex;
  gap: 0.6rem;
  padding-top: 0.8rem;
}
</style>
