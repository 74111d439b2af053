<script setup lang="ts">
import { computed } from 'vue'

/** A figure: what it is, how sure, and where it comes from. Bare it is a typical one. */
const props = defineProps<{ title: string; value: unknown; isWrong: boolean }>()
const emit = defineEmits<{ change: [value: unknown] }>()

interface Figure {
  readonly value?: number
  readonly tolerance?: number
  readonly provenance?: string
}
const figure = computed<Figure>(() =>
  typeof props.value === 'number' ? { value: props.value } : ((props.value as Figure | null) ?? {}),
)

function change(name: keyof Figure, given: string) {
  const now = {
    ...figure.value,
    [name]: name === 'provenance' ? given : given === '' ? undefined : Number(given),
  }
  const { value, tolerance, provenance } = now
  if (value === undefined) emit('change', undefined)
  else if (tolerance === undefined && (!provenance || provenance === 'typical')) emit('change', value)
  else
    emit('change', {
      value,
      ...(tolerance === undefined ? {} : { tolerance }),
      ...(provenance ? { provenance, source: provenance === 'typical' ? 'MEMORY' : 'USER' } : {}),
    })
}
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="figure" :class="{ wrong: isWrong }" role="group" :aria-label="title">
    <span class="title">{{ title }}</span>
    <input
      type="number"
      step="any"
      :value="figure.value"
      :aria-label="title"
      :aria-invalid="isWrong"
      @change="change('value', text($event))"
    />
    <template v-if="figure.value !== undefined">
      <label
        >±
        <input
          class="within"
          type="number"
          step="any"
          min="0"
          :value="figure.tolerance"
          :aria-label="`${title}, ±`"
          placeholder="usual"
          @change="change('tolerance', text($event))"
        />
      </label>
      <select
        :value="figure.provenance ?? 'typical'"
        :aria-label="`${title}, where from`"
        @change="change('provenance', text($event))"
      >
        <option>typical</option>
        <option>manual</option>
        <option>measured</option>
      </select>
    </template>
  </div>
</template>

<style scoped>
.figure {
  display: grid;
  grid-template-columns: minmax(5rem, 1fr) auto auto;
  gap: 0.3rem 0.5rem;
  align-items: center;
}
.title {
  grid-column: 1 / -1;
  color: var(--ink-soft);
  font-size: 0.9rem;
}
input,
select {
  min-width: 0;
  min-height: 2.2rem;
  padding: 0.2rem 0.4rem;
  color: var(--ink);
  font: inherit;
  background: var(--chalk);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
input {
  width: 100%;
  text-align: right;
  appearance: textfield;
}
label {
  display: flex;
  gap: 0.3rem;
  align-items: center;
}
.within {
  width: 4.5rem;
}
.wrong input:first-of-type {
  border-color: var(--stop);
}
</style>
