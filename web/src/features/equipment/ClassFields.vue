<script setup lang="ts">
import { computed } from 'vue'

import ClassField from './ClassField.vue'
import { fieldsOf, type Item, type Schema } from './schema'

/** The fields of one thing of a class: what is said of it first, and what could be said a step away. */
const props = defineProps<{
  schema: Schema
  item: Item
  defs: Schema['$defs']
  path: string
  wrongAt: string
}>()
const emit = defineEmits<{ change: [item: Item] }>()

const fields = computed(() => fieldsOf(props.schema, props.defs))
const isSaid = (name: string) =>
  name !== 'id' && (name in props.item || Boolean(props.schema.required?.includes(name)))
const parts = computed(() => [
  { name: 'said', fields: fields.value.filter(({ name }) => isSaid(name)) },
  { name: 'more', fields: fields.value.filter(({ name }) => !isSaid(name)) },
])

function put(name: string, value: unknown) {
  const others = Object.fromEntries(Object.entries(props.item).filter(([key]) => key !== name))
  emit('change', value === undefined ? others : { ...props.item, [name]: value })
}
</script>

<template>
  <component
    :is="part.name === 'more' ? 'details' : 'div'"
    v-for="part in parts.filter(({ fields: some }) => some.length)"
    :key="part.name"
    :class="part.name"
  >
    <summary v-if="part.name === 'more'">More</summary>
    <div class="fields">
      <ClassField
        v-for="field in part.fields"
        :key="field.name"
        :field="field"
        :value="item[field.name]"
        :defs="defs"
        :path="`${path}.${field.name}`"
        :wrong-at="wrongAt"
        @change="put(field.name, $event)"
      />
    </div>
  </component>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(16rem, 100%), 1fr));
  gap: 0.7rem 1.2rem;
  align-items: start;
  padding-block: 0.4rem;
}
.fields > :deep(fieldset) {
  grid-column: 1 / -1;
}
summary {
  padding: 0.15rem 0;
  color: var(--ink-soft);
  cursor: pointer;
}
</style>
