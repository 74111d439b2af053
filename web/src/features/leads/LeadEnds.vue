<script setup lang="ts">
import type { LeadBox } from '@/api/client'
import type { LeadMaking } from './useLeadDraft'
import KeptInput from '@/ui/KeptInput.vue'

/** What is outside on a lead that is being made: its name, its plugs, its length, and whether it goes two ways. */
defineProps<{ make: LeadMaking; ends: LeadBox['ends'] }>()
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
  <div class="ends">
    <label class="field"
      ><span>Name</span
      ><input :value="make.draft.label" maxlength="80" @input="make.describe({ label: value($event) })"
    /></label>
    <label v-for="end in ['sending', 'receiving'] as const" :key="end" class="field">
      <span>{{ end === 'sending' ? 'Sending end' : 'Receiving end' }}</span>
      <span class="end">
        <select
          :aria-label="`${end} end`"
          :value="make.draft[end].connector"
          @change="make.setConnector(end, value($event))"
        >
          <option v-for="item in ends" :key="item.connector" :value="item.connector">{{ item.label }}</option>
        </select>
        <select
          :aria-label="`${end} end, gender`"
          :value="make.draft[end].gender"
          @change="make.setGender(end, value($event))"
        >
          <option>male</option>
          <option>female</option>
        </select>
      </span>
    </label>
    <label class="field">
      <span>Fixed length, m (empty: made to length)</span>
      <KeptInput
        type="number"
        min="0.1"
        max="100"
        step="0.1"
        :value="make.draft.short_m"
        @change="make.describe({ short_m: Number(value($event)) || null })"
      />
    </label>
    <label class="check"
      ><input type="checkbox" :checked="make.twoWays" @change="make.setTwoWays(!make.twoWays)" /> Y-cable,
      left and right of one plug</label
    >
    <label v-if="make.twoWays" class="field">
      <span>Which way</span>
      <select :value="make.branch" @change="make.setBranch(value($event))">
        <option value="L">left</option>
        <option value="R">right</option>
      </select>
    </label>
  </div>
</template>

<style scoped>
.ends {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 0.8rem;
  align-items: end;
}
.end {
  display: grid;
  grid-template-columns: 1fr 6rem;
  gap: 0.4rem;
}
</style>
