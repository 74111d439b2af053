<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import FigureField from './FigureField.vue'
import { BEGINS, fieldsOf, itemOf, newMode, optionsOf, type Field, type Schema } from './schema'

/** One field of a class, of whatever shape; groups and lists hold others. */
const props = defineProps<{
  field: Field
  value: unknown
  defs: Schema['$defs']
  path: string
  wrongAt: string
}>()
const emit = defineEmits<{ change: [value: unknown] }>()

type Item = Record<string, unknown>
const list = computed(() => (Array.isArray(props.value) ? (props.value as Item[]) : []))
const entry = computed(() => itemOf(props.field.schema, props.defs))
const isWrong = computed(() => props.wrongAt === props.path || props.wrongAt.startsWith(`${props.path}.`))
const words = computed(() => (Array.isArray(props.value) ? props.value.join(', ') : ''))
const lines = computed(() =>
  Object.entries((props.value ?? {}) as Record<string, string>)
    .map(([key, to]) => `${key} = ${to}`)
    .join('\n'),
)

/** What is said first, and what is a step away: an object shows what it has, and offers the rest. */
function split(schema: Schema, has: Item) {
  const all = fieldsOf(schema, props.defs)
  const first = all.filter(({ name }) => name !== 'id' && (name in has || schema.required?.includes(name)))
  return { first, more: all.filter((field) => !first.includes(field)) }
}
const group = computed(() => split(props.field.schema, (props.value ?? {}) as Item))
const nameOf = (item: Item, index: number) => String(item.label ?? item.id ?? index + 1)
const idOf = (item: Item, index: number) => String(item.id ?? index + 1)

const without = (item: Item, name: string) =>
  Object.fromEntries(Object.entries(item).filter(([key]) => key !== name))
function put(item: Item, name: string, value: unknown): Item {
  return value === undefined ? without(item, name) : { ...item, [name]: value }
}
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
      <div class="fields">
        <ClassField
          v-for="inner in split(entry, item).first"
          :key="inner.name"
          :field="inner"
          :value="item[inner.name]"
          :defs="defs"
          :path="`${path}.${idOf(item, index)}.${inner.name}`"
          :wrong-at="wrongAt"
          @change="emit('change', replaced(index, put(item, inner.name, $event)))"
        />
        <details class="more">
          <summary>More</summary>
          <div class="fields">
            <ClassField
              v-for="inner in split(entry, item).more"
              :key="inner.name"
              :field="inner"
              :value="item[inner.name]"
              :defs="defs"
              :path="`${path}.${idOf(item, index)}.${inner.name}`"
              :wrong-at="wrongAt"
              @change="emit('change', replaced(index, put(item, inner.name, $event)))"
            />
          </div>
        </details>
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
    <div v-else class="fields">
      <ClassField
        v-for="inner in group.first"
        :key="inner.name"
        :field="inner"
        :value="(value as Item)[inner.name]"
        :defs="defs"
        :path="`${path}.${inner.name}`"
        :wrong-at="wrongAt"
        @change="emit('change', put(value as Item, inner.name, $event))"
      />
      <details v-if="group.more.length" class="more">
        <summary>More</summary>
        <div class="fields">
          <ClassField
            v-for="inner in group.more"
            :key="inner.name"
            :field="inner"
            :value="(value as Item)[inner.name]"
            :defs="defs"
            :path="`${path}.${inner.name}`"
            :wrong-at="wrongAt"
            @change="emit('change', put(value as Item, inner.name, $event))"
          />
        </div>
      </details>
      <p v-if="field.isOptional">
        <Button text size="small" @click="emit('change', undefined)">Remove</Button>
      </p>
    </div>
  </fieldset>

  <fieldset v-else-if="field.shape === 'choices'" class="choices">
    <legend>{{ field.title }}</legend>
    <label v-for="choice in entry.enum" :key="choice" class="check">
      <input
        type="checkbox"
        :checked="words.split(', ').includes(choice)"
        @change="emit('change', chosen(choice, target($event).checked))"
      />
      {{ choice }}
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
.group > .fields,
.list details > .fields {
  padding-left: 0.9rem;
  border-left: 2px solid var(--line);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(16rem, 100%), 1fr));
  gap: 0.7rem 1.2rem;
  align-items: start;
  padding-block: 0.4rem;
}
.fields > fieldset,
.fields > details,
.fields > p {
  grid-column: 1 / -1;
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
.more > summary {
  color: var(--ink-soft);
  font-weight: 400;
}
.wrong input,
.wrong select {
  border-color: var(--stop);
}
</style>
