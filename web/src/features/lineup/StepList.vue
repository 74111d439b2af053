<script setup lang="ts">
import type { LineUpStep } from '@/api/client'
import { formatLevel } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** Where tone goes, in the order of the work, and how far each place is. */
defineProps<{ steps: readonly LineUpStep[]; open: string }>()
const emit = defineEmits<{ choose: [track: string] }>()
const WORDS = {
  open: 'to do',
  done: 'lined up',
  off: 'not lined up',
  earlier: 'to verify',
  stale: 'changed since',
} as const
const SIGNS = { open: '○', done: '●', off: '◌', earlier: '◔', stale: '◐' } as const
</script>

<template>
  <section aria-labelledby="places">
    <h3 id="places">Tone goes to</h3>
    <p class="heads soft small" aria-hidden="true"><span>should read, dBFS</span></p>
    <ol class="steps">
      <li v-for="step in steps" :key="step.track">
        <button
          type="button"
          :class="[step.state, { here: step.track === open }]"
          :aria-current="step.track === open ? 'step' : undefined"
          @click="emit('choose', step.track)"
        >
          <span class="sign" aria-hidden="true">{{ SIGNS[step.state] }}</span>
          <span class="what">
            <strong>{{ step.label }}</strong>
            <span class="soft small">tone from {{ step.sender_label }}</span>
          </span>
          <!-- A figure that a clipped tone would reach is none to aim at. -->
          <span v-if="step.warning" class="num soft">–</span>
          <span v-else class="num"
            >{{ formatLevel(step.shows_dbfs, 1)
            }}<span class="soft small"> ±{{ formatLevel(step.within_db, 1) }}</span></span
          >
          <span v-if="step.warning" class="state small is-stop"
            ><SeverityMark severity="stop" :size="11" /> not yet</span
          >
          <span v-else class="state small">{{ step.like ? `as ${step.like}` : WORDS[step.state] }}</span>
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  border-top: 1px solid var(--line);
}
.heads {
  display: flex;
  justify-content: flex-end;
  padding-right: 7.1rem;
}
li + li {
  border-top: 1px solid var(--line);
}
button {
  display: grid;
  grid-template-columns: 1.2rem minmax(0, 1fr) auto 6rem;
  gap: 0.2rem 0.6rem;
  align-items: center;
  width: 100%;
  min-height: 2.75rem;
  padding: 0.35rem 0.5rem 0.35rem 0.4rem;
  text-align: left;
  background: none;
  border: 0;
  border-left: 4px solid transparent;
  cursor: pointer;
}
button:hover,
button.here {
  background: var(--sheet);
  border-left-color: var(--pin);
}
.what {
  display: grid;
}
.state.is-stop {
  color: var(--stop);
}
.open .state {
  color: var(--ink-soft);
}
.done .sign,
.done .state {
  color: var(--accent);
}
.off .sign,
.off .state,
.stale .sign,
.stale .state {
  color: var(--caution);
}
</style>
