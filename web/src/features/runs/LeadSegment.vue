<script setup lang="ts">
import type { Lead } from '@/api/client'
import RunTag from '@/ui/RunTag.vue'

/** A lead between two devices: its tag above the line, what it is below; radio is dotted. */
defineProps<{ lead: Lead; lit: boolean; wrong: boolean }>()
const emit = defineEmits<{ open: []; light: [run: string] }>()
</script>

<template>
  <button
    type="button"
    class="lead"
    :class="{ lit, wrong }"
    :title="`${lead.label}: ${lead.plugs}`"
    @click.stop="emit('open')"
    @mouseenter="emit('light', lead.run)"
    @mouseleave="emit('light', '')"
    @focus="emit('light', lead.run)"
    @blur="emit('light', '')"
  >
    <span class="visually-hidden">Cable</span>
    <RunTag :number="lead.number" :tape="lead.tape" />
    <svg width="100%" height="12" aria-hidden="true">
      <line x1="4" x2="100%" y1="6" y2="6" :stroke-dasharray="lead.wireless ? '2 5' : undefined" />
      <rect x="0" y="2.5" width="7" height="7" class="sending" />
      <svg x="100%" width="10" height="12" overflow="visible">
        <rect x="-9" y="1.5" width="8" height="9" class="receiving" />
      </svg>
      <svg v-if="lead.inside.includes('dB')" x="50%" overflow="visible">
        <rect x="-9" y="1.5" width="18" height="9" class="pad" />
      </svg>
    </svg>
    <span class="caption">{{ lead.label }}</span>
  </button>
</template>

<style scoped>
.lead {
  display: grid;
  flex: 1 1 6.5rem;
  justify-items: center;
  min-width: 5.5rem;
  padding: 0 0.3rem;
  background: none;
  border: 0;
  cursor: pointer;
}
svg {
  display: block;
}
line {
  stroke: var(--line-strong);
  stroke-width: 1.75;
}
.sending {
  fill: var(--line-strong);
}
.receiving,
.pad {
  fill: var(--paper);
  stroke: var(--line-strong);
  stroke-width: 1.75;
}
.lit line {
  stroke-width: 4;
  stroke: var(--pin);
}
.wrong line {
  stroke: var(--stop);
}
.caption {
  font-size: 0.8rem;
  line-height: 1.2;
  color: var(--ink-soft);
  text-align: center;
}
</style>
