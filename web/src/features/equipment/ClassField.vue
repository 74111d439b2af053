<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import ClassFields from './ClassFields.vue'
import FigureField from './FigureField.vue'
import { BEGINS, itemOf, newMode, optionsOf, type Field, type Item, type Schema } from './schema'

/** One field of a class, of whatever shape; groups and lists hold others. */
const props = defineProps<{
  field: Field
  value: unknown
  defs: Schema['$defs']
  path: string
  wrongAt: string
}>()
const emit = defineEmits<{ change: [value: unknown] }>()

const list = computed(() => (Array.isArray(props.value) ? (props.value as Item[]) : []))
const entry = computed(() => itemOf(props.field.schema, props.defs))
const isWrong = computed(() => props.wrongAt === props.path || props.wrongAt.startsWith(`${props.path}.`))
const words = computed(() => (Array.isArray(props.value) ? props.value.join(', ') : ''))
const lines = computed(() =>
  Object.entries((props.value ?? {}) as Record<string, string>)
    .map(([key, to]) => `${key} = ${to}`)
    .join('\n'),
)

const nameOf = (item: Item, index: number) => String(item.label ?? item.id ?? index + 1)
const idOf = (item: Item, index: number) => String(item.id ?? index + 1)

const replaced = (index: number, item: Item) => list.value.map((old, at) => (at === index ? item : old))

/** Which entries are unfolded: the only position of a switch, what somebody unfolds, and where something is wrong. */
const openAt = ref(
  new Set(props.field.name === 'modes' && list.value.length === 1 ? list.value.map(idOf) : []),
)
const unfolded = (id: string, on: boolean) => (on ? openAt.value.add(id) : openAt.value.delete(id))
watch(
  () => props.wrongAt,
  (at) => list.value.map(idOf).forEach((id) => at.startsWith(`${props.path}.${id}.`) && unfolded(id, true)),
)

/** An id of its own for what was not there before. */
function begun(): Item {
  const item =
    props.field.name === 'modes'
      ? newMode(props.path.startsWith('inputs'))
      : { ...BEGINS[props.field.name]?.() }
  if (!('id' in item)) return item
  const taken = list.value.map(({ id }) => id)
  let number = 1
  while (taken.includes(number > 1 ? `${item.id}${number}` : item.id)) number += 1
  return number > 1 ? { ...item, id: `${item.id}${number}`, label: `${String(item.label)} ${number}` } : item
}
const parts = (text: string) =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
const pairs = (text: string) =>
  Object.fromEntries(
    text
      .split('\n')
      .map((line) => line.split('=').map((part) => part.trim()))
      .filter(([key, to]) => key && to),
  )
const target = (event: Event) => event.target as HTMLInputElement
const chosen = (choice: string, on: boolean) => {
  const now = (Array.isArray(props.value) ? props.value : []) as string[]
  return on ? [...now, choice] : now.filter((item) => item !== choice)
}
</script>

<template>
  <fieldset v-if="field.shape === 'list'" class="list">
    <legend>{{ field.title }}</legend>
    <details
      v-for="(item, index) in list"
      :key="index"
      :open="openAt.has(idOf(item, index))"
      @toggle="unfolded(idOf(item, index), ($event.target as HTMLDetailsElement).open)"
    >
      <summary>{{ nameOf(item, index) }}</summary>
      <div class="inner">
        <ClassFields
          :schema="entry"
          :item="item"
          :defs="defs"
          :path="`${path}.${idOf(item, index)}`"
          :wrong-at="wrongAt"
          @change="emit('change', replaced(index, $event))"
        />
        <p>
          <Button
            text
            size="small"
            @click="
              emit(
                'change',
                list.filter((_, at) => at !== index),
              )
            "
            >Remove {{ nameOf(item, index) }}</Button
          >
        </p>
      </div>
    </details>
    <p>
      <Button text size="small" @click="emit('change', [...list, begun()])"
        >Add to {{ field.title.toLowerCase() }}</Button
      >
    </p>
  </fieldset>

  <fieldset v-else-if="field.shape === 'group'" class="group">
    <legend>{{ field.title }}</legend>
    <p v-if="value === undefined || value === null">
      <Button text size="small" @click="emit('change', { ...BEGINS[field.name]?.() })">Add</Button>
    </p>
    <div v-else class="inner">
      <ClassFields
        :schema="field.schema"
        :item="value as Item"
        :defs="defs"
        :path="path"
        :wrong-at="wrongAt"
        @change="emit('change', $event)"
      />
      <p v-if="field.isOptional">
        <Button text size="small" @click="emit('change', undefined)">Remove</Button>
      </p>
    </div>
  </fieldset>

  <fieldset v-else-if="field.shape === 'choices'" class="choices">
    <legend>{{ field.title }}</legend>
    <label v-for="[choice, label] in optionsOf(entry)" :key="choice" class="check">
      <input
        type="checkbox"
        :checked="words.split(', ').includes(choice)"
        @change="emit('change', chosen(choice, target($event).checked))"
      />
      {{ label }}
    </label>
  </fieldset>

  <FigureField
    v-else-if="field.shape === 'figure'"
    :title="field.title"
    :value="value"
    :is-wrong="isWrong"
    @change="emit('change', $event)"
  />

  <label v-else-if="field.shape === 'switch'" class="check">
    <input type="checkbox" :checked="value === true" @change="emit('change', target($event).checked)" />
    {{ field.title }}
  </label>

  <label v-else class="field" :class="{ wrong: isWrong }">
    <span>{{ field.title }}</span>
    <select
      v-if="field.shape === 'choice'"
      :value="value ?? ''"
      :aria-invalid="isWrong"
      @change="emit('change', target($event).value || undefined)"
    >
      <option v-if="value === undefined" value=""></option>
      <option v-for="[choice, name] in optionsOf(field.schema)" :key="choice" :value="choice">
        {{ name }}
      </option>
    </select>
    <textarea
      v-else-if="field.shape === 'map'"
      :value="lines"
      rows="4"
      @change="emit('change', pairs(target($event).value))"
    />
    <input
      v-else-if="field.shape === 'number'"
      type="number"
      step="any"
      :value="value"
      :aria-invalid="isWrong"
      @change="emit('change', target($event).value === '' ? undefined : Number(target($event).value))"
    />
    <input
      v-else-if="field.shape === 'words' || field.shape === 'numbers'"
      :value="words"
      :aria-invalid="isWrong"
      @change="
        emit(
          'change',
          field.shape === 'numbers' ? parts(target($event).value).map(Number) : parts(target($event).value),
        )
      "
    />
    <input v-else :value="value" :aria-invalid="isWrong" @change="emit('change', target($event).value)" />
  </label>
</template>

<style scoped>
fieldset {
  display: grid;
  gap: 0.5rem;
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-weight: 700;
}
.inner {
  padding-left: 0.9rem;
  border-left: 2px solid var(--line);
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
}
.check {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
summary {
  padding: 0.15rem 0;
  font-weight: 600;
  cursor: pointer;
}
.wrong input,
.wrong select {
  border-color: var(--stop);
}
</style>
