<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref } from 'vue'

import { useCatalogue } from '@/stores/catalogue'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'

/** Who and what must be heard: how loud at 1 m, and how far from which microphone. */
const job = useJob()
const catalogue = useCatalogue()
const label = ref('')
const effort = ref('normal')
const sources = computed(() => job.state?.plan.sources ?? [])
const microphones = computed(() => job.state?.devices.filter(({ kind }) => kind === 'microphone') ?? [])
const nameOf = (device: string) => microphones.value.find(({ id }) => id === device)?.label ?? device
onMounted(() => catalogue.load())

async function add() {
  const average = catalogue.value?.efforts[effort.value] ?? 60
  const edit = {
    kind: 'add-source' as const,
    label: label.value.trim(),
    average_db_spl: average,
    weighting: 'A' as const,
    heard_by: {},
  }
  if (await job.edit([edit])) label.value = ''
}

const number = (event: Event) => Number((event.target as HTMLInputElement).value)
const LEVELS = ['quiet_db_spl', 'average_db_spl', 'peak_db_spl', 'burst_db_spl'] as const

function setLevel(source: string, level: (typeof LEVELS)[number], event: Event) {
  void job.edit([{ kind: 'set-source', source, [level]: number(event) }])
}

function setWeighting(source: string, event: Event) {
  const weighting = (event.target as HTMLSelectElement).value as 'A' | 'Z'
  void job.edit([{ kind: 'set-source', source, weighting }])
}

/** At first as far as such a microphone usually is. */
function begin(source: string, device: string) {
  const found = microphones.value.find(({ id }) => id === device)
  if (found) hear(source, device, found.usual_m)
}

function hear(source: string, device: string, distance_m: number | null, off_axis_deg: number | null = null) {
  void job.edit([{ kind: 'hear', source, device, distance_m, off_axis_deg }])
}
</script>

<template>
  <section>
    <h2>Sources</h2>
    <div class="scrolls">
      <table v-if="sources.length" class="plain-table">
        <thead>
          <tr>
            <th scope="col">source</th>
            <th scope="col">unit</th>
            <th scope="col" class="num">quiet</th>
            <th scope="col" class="num">average</th>
            <th scope="col" class="num">peak</th>
            <th scope="col" class="num">loudest shout</th>
            <th scope="col">cannot be repeated</th>
            <th scope="col">microphone</th>
            <th class="no-print"><span class="visually-hidden">remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="source in sources" :key="source.id">
            <th scope="row">{{ source.label }}</th>
            <td>
              <select
                :key="job.refusals"
                class="plain-input"
                :value="source.weighting ?? 'A'"
                :aria-label="`${source.label}, weighting`"
                :disabled="job.readOnly"
                @change="setWeighting(source.id, $event)"
              >
                <option value="A">dB(A), speech</option>
                <option value="Z">dB, unweighted</option>
              </select>
            </td>
            <td v-for="level in LEVELS" :key="level">
              <KeptInput
                class="plain-input num"
                type="number"
                min="-20"
                max="180"
                :value="source[level]"
                :aria-label="`${source.label}, ${level.split('_')[0]}, ${source.weighting === 'Z' ? 'dB SPL' : 'dB(A)'} at 1 m`"
                :disabled="job.readOnly"
                @change="setLevel(source.id, level, $event)"
              />
            </td>
            <td>
              <input
                :key="job.refusals"
                type="checkbox"
                :checked="source.irreplaceable ?? false"
                :aria-label="`${source.label} cannot be repeated`"
                :disabled="job.readOnly"
                @change="
                  job.edit([{ kind: 'set-source', source: source.id, irreplaceable: !source.irreplaceable }])
                "
              />
            </td>
            <td>
              <span v-for="(distance, device) in source.heard_by" :key="device" class="heard">
                <span class="name">{{ nameOf(String(device)) }}</span> at
                <KeptInput
                  class="plain-input num"
                  type="number"
                  min="0.01"
                  max="1000"
                  step="0.1"
                  :value="distance"
                  :aria-label="`Distance of ${nameOf(String(device))} from ${source.label} in m`"
                  :disabled="job.readOnly"
                  @change="hear(source.id, String(device), number($event))"
                />
                m,
                <KeptInput
                  class="plain-input num"
                  type="number"
                  min="0"
                  max="180"
                  step="5"
                  :value="source.off_axis_deg?.[String(device)] ?? 0"
                  :aria-label="`Angle of ${source.label} off the axis of ${nameOf(String(device))} in degrees`"
                  :disabled="job.readOnly"
                  @change="hear(source.id, String(device), distance, number($event))"
                />°
                <Button
                  class="no-print"
                  text
                  size="small"
                  :aria-label="`${nameOf(String(device))} does not hear ${source.label}`"
                  :disabled="job.readOnly"
                  @click="hear(source.id, String(device), null)"
                  >×</Button
                >
              </span>
              <select
                class="plain-input no-print"
                :aria-label="`Microphone for ${source.label}`"
                :disabled="job.readOnly"
                value=""
                @change="begin(source.id, ($event.target as HTMLSelectElement).value)"
              >
                <option value="">+ microphone</option>
                <option
                  v-for="item in microphones.filter(({ id }) => !(id in (source.heard_by ?? {})))"
                  :key="item.id"
                  :value="item.id"
                >
                  {{ item.label }}
                </option>
              </select>
            </td>
            <td class="no-print">
              <Button
                text
                size="small"
                :disabled="job.readOnly"
                @click="job.edit([{ kind: 'remove-source', source: source.id }])"
                >Remove</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <form class="add-form no-print" @submit.prevent="add">
      <label class="field"><span>New source</span><input v-model="label" maxlength="80" required /></label>
      <label class="field">
        <span>Voice</span>
        <select v-model="effort">
          <option v-for="(level, name) in catalogue.value?.efforts" :key="name" :value="name">
            {{ name }}, {{ level }} dB(A) at 1 m
          </option>
        </select>
      </label>
      <Button type="submit" :disabled="!label.trim() || job.readOnly">Add</Button>
    </form>
    <p class="soft small">
      Levels at 1 m. Speech in dB(A), as a sound level meter reads it (vocal effort after ISO 9921, from
      memory); the long-term spectrum of speech (Byrne et al. 1994) makes it 4.1 dB more unweighted, which is
      what the microphone hears. State anything that is not speech unweighted. Level falls 6 dB with each
      doubling of the distance; the angle is off the microphone's axis.
    </p>
  </section>
</template>

<style scoped>
.name {
  flex: none;
  max-width: 14rem;
  overflow-wrap: break-word;
}
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.8rem;
}
h2 {
  font-size: 1.2rem;
}
td > .num {
  width: 4.3rem;
}
.heard {
  display: inline-flex;
  gap: 0.3rem;
  align-items: center;
  margin-right: 0.8rem;
}
.heard input {
  width: 4rem;
}
td > select {
  width: auto;
  max-width: 14rem;
}
</style>
