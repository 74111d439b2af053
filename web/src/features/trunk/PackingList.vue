<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Trunk, TrunkTick } from '@/api/client'

/** What is packed, by case, a tick each; at the end of the day the same list says what did not come back. */
const props = defineProps<{ trunk: Trunk; mayTick: boolean; mayEdit: boolean }>()
const emit = defineEmits<{ tick: [item: string, state: TrunkTick['state']]; use: [pieces: string[]] }>()
const isUnpacking = ref(false)
const kit = ref('')
type Line = Trunk['packing'][number]

const kits = computed(() => [...new Set(props.trunk.packing.map((line) => line.kit))].filter(Boolean).sort())
const cases = computed(() => {
  const found = new Map<string, Line[]>()
  for (const line of props.trunk.packing) {
    if (kit.value && line.kit !== kit.value) continue
    const place = line.case || 'In no case'
    found.set(place, [...(found.get(place) ?? []), line])
  }
  return [...found]
})
const lost = computed(() => props.trunk.packing.filter(({ state }) => state === 'missing'))
/** Where it lay, and which cable it was last. */
const lastSeen = ({ label, case: place, runs, who }: Line) =>
  [
    label,
    place && `from the ${place}`,
    runs.length && `last as cable ${runs.join(', ')}`,
    who && `ticked by ${who}`,
  ]
    .filter(Boolean)
    .join(', ')
const isDone = (line: Line) => (isUnpacking.value ? line.state === 'back' : line.state !== 'open')
function toggle(line: Line) {
  if (isUnpacking.value) emit('tick', line.id, line.state === 'back' ? 'packed' : 'back')
  else emit('tick', line.id, line.state === 'open' ? 'packed' : 'open')
}
</script>

<template>
  <section class="packing" aria-label="Packing list">
    <header>
      <h3>{{ isUnpacking ? 'Unpacking' : 'Packing' }}</h3>
      <span class="soft">{{ trunk.packed }} of {{ trunk.packing.length }} packed</span>
      <label class="small no-print"><input v-model="isUnpacking" type="checkbox" /> unpacking</label>
      <label v-if="kits.length" class="small no-print"
        >whose
        <select v-model="kit">
          <option value="">everybody’s</option>
          <option v-for="name in kits" :key="name" :value="name">{{ name }}’s</option>
        </select></label
      >
    </header>
    <p v-if="trunk.weight" class="small soft">{{ trunk.weight }}</p>
    <p v-if="lost.length" class="is-stop">Did not come back: {{ lost.map(lastSeen).join('; ') }}.</p>
    <div v-for="[place, lines] in cases" :key="place">
      <h4>{{ place }}</h4>
      <ul>
        <li v-for="line in lines" :key="line.id">
          <button
            type="button"
            class="tap"
            data-repeats
            :disabled="!mayTick"
            :aria-pressed="isDone(line)"
            @click="toggle(line)"
          >
            <span class="mark" aria-hidden="true">{{ isDone(line) ? '✓' : '' }}</span>
            <span>
              <strong>{{ line.count > 1 ? `${line.count} × ` : '' }}{{ line.label }}</strong>
              <span v-if="line.runs.length" class="soft"
                >, {{ line.is_spare ? 'spare for cable' : 'cable' }} {{ line.runs.join(', ') }}</span
              >
              <span v-if="line.warning" class="is-caution small">, {{ line.warning }}</span>
            </span>
          </button>
          <button
            v-if="isUnpacking && mayEdit && line.used_up.length"
            type="button"
            class="tap lost"
            data-repeats
            :aria-label="`One used: ${line.label}`"
            @click="emit('use', line.used_up)"
          >
            One used
          </button>
          <button
            v-else-if="isUnpacking && mayTick"
            type="button"
            class="tap lost"
            data-repeats
            :aria-pressed="line.state === 'missing'"
            :aria-label="`Missing: ${line.label}`"
            @click="emit('tick', line.id, line.state === 'missing' ? 'packed' : 'missing')"
          >
            Missing
          </button>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.packing {
  display: grid;
  gap: 0.6rem;
  align-content: start;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: baseline;
}
h4 {
  margin: 0 0 0.3rem;
  font-size: 0.95rem;
}
ul {
  display: grid;
  gap: 0.35rem;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.4rem;
}
.tap {
  display: grid;
  grid-template-columns: 1.4rem minmax(0, 1fr);
  gap: 0.5rem;
  align-items: center;
  min-height: 2.75rem;
  text-align: left;
}
.tap.lost {
  display: block;
}
.mark {
  display: grid;
  place-items: center;
  width: 1.4rem;
  height: 1.4rem;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
}
.tap[aria-pressed='true'] strong {
  font-weight: 400;
}
.tap[aria-pressed='true'] :is(.soft, .is-caution) {
  color: inherit;
}
.lost[aria-pressed='true'] {
  font-weight: 700;
  color: var(--stop);
}
</style>
