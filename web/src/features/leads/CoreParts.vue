<script setup lang="ts">
import Button from 'primevue/button'
import { ref } from 'vue'

import type { Contact, WiringDraft } from '@/api/client'
import type { End } from './useLeadDraft'
import KeptInput from '@/ui/KeptInput.vue'

type Wire = NonNullable<WiringDraft['wires']>[number]
type Bridge = NonNullable<WiringDraft['bridges']>[number]

/** What lies in the cores, and what joins two contacts of one end. */
const props = defineProps<{
  wires: readonly Wire[]
  bridges: readonly Bridge[]
  near: readonly Contact[]
  far: readonly Contact[]
  locked: boolean
}>()
const emit = defineEmits<{ wires: [wires: Wire[]]; bridges: [bridges: Bridge[]] }>()
const end = ref<End>('receiving')
const first = ref('')
const second = ref('')

const ohm = (event: Event) => Number((event.target as HTMLInputElement).value) || 0
const setWire = (index: number, changed: Partial<Wire>) =>
  emit(
    'wires',
    props.wires.map((wire, at) => (at === index ? { ...wire, ...changed } : wire)),
  )
const setBridge = (index: number, value: number) =>
  emit(
    'bridges',
    props.bridges.map((bridge, at) => (at === index ? { ...bridge, ohm: value } : bridge)),
  )
function join() {
  if (!first.value || !second.value || first.value === second.value) return
  emit('bridges', [...props.bridges, { end: end.value, first: first.value, second: second.value, ohm: 0 }])
  first.value = second.value = ''
}
</script>

<template>
  <div class="parts">
    <div v-for="(wire, index) in wires" :key="`${wire.near}${wire.far}`" class="line">
      <strong>{{ wire.near }} to {{ wire.far }}</strong>
      <label
        ><span class="soft small">through Ω</span>
        <KeptInput
          class="plain-input num"
          type="number"
          min="0"
          max="10000000"
          step="any"
          :aria-label="`Resistor in ${wire.near} to ${wire.far}, Ω`"
          :value="Number((wire.ohm ?? 0).toPrecision(4))"
          :disabled="locked"
          @change="setWire(index, { ohm: ohm($event) })"
      /></label>
      <label class="check"
        ><input
          type="checkbox"
          :checked="wire.blocks_dc ?? false"
          :disabled="locked"
          @change="setWire(index, { blocks_dc: !wire.blocks_dc })"
        />
        capacitor</label
      >
    </div>
    <div v-for="(bridge, index) in bridges" :key="`b${index}`" class="line">
      <strong>{{ bridge.first }} and {{ bridge.second }}, {{ bridge.end }} end</strong>
      <label
        ><span class="soft small">by Ω, 0 for a short</span>
        <KeptInput
          class="plain-input num"
          type="number"
          min="0"
          max="10000000"
          step="any"
          :aria-label="`Resistor between ${bridge.first} and ${bridge.second}, Ω`"
          :value="Number((bridge.ohm ?? 0).toPrecision(4))"
          :disabled="locked"
          @change="setBridge(index, ohm($event))"
      /></label>
      <Button
        text
        size="small"
        :disabled="locked"
        @click="
          emit(
            'bridges',
            bridges.filter((_, at) => at !== index),
          )
        "
        >Remove</Button
      >
    </div>
    <form class="line" @submit.prevent="join">
      <select v-model="end" class="plain-input" aria-label="At which end" @change="first = second = ''">
        <option value="sending">sending end</option>
        <option value="receiving">receiving end</option>
      </select>
      <span class="pair">
        <select v-model="first" class="plain-input" aria-label="First contact">
          <option v-for="item in end === 'sending' ? near : far" :key="item.name">{{ item.name }}</option>
        </select>
        and
        <select v-model="second" class="plain-input" aria-label="Second contact">
          <option v-for="item in end === 'sending' ? near : far" :key="item.name">{{ item.name }}</option>
        </select>
      </span>
      <Button type="submit" outlined size="small" :disabled="locked || !first || !second">Join</Button>
    </form>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  gap: 0.5rem;
}
.line {
  display: grid;
  grid-template-columns: 12rem 9rem 1fr;
  gap: 0.8rem;
  align-items: end;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 0.3rem;
  align-items: center;
}
.check {
  padding-bottom: 0.4rem;
}
@media (width < 700px) {
  .line {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
