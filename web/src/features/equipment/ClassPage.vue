<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'

import { formatLevel } from '@/format/levels'
import { useCatalogue } from '@/stores/catalogue'
import ClassPicture from '@/ui/ClassPicture.vue'
import ClassField from './ClassField.vue'
import DatasheetForm from './DatasheetForm.vue'
import { fieldsOf } from './schema'
import { useLeadBox } from '@/composables/useLeadBox'
import { useClassDraft } from './useClassDraft'

/** A class of device or cable, to be changed as a form or as text; beside it what it is, and what that does to a job. */
const props = defineProps<{ id: string }>()
const job = String(useRoute().query.job ?? '')
const draft = useClassDraft(props.id, job)
const { values, text, page, moved, schema, problem, wrongAt, trouble, isSaved, undoable } = draft
const catalogue = useCatalogue()
const box = useLeadBox()
const asText = ref(false)
onMounted(() => catalogue.load())

const HIDDEN = ['id', 'also', 'cost']
const fields = computed(() =>
  schema.value ? fieldsOf(schema.value, schema.value.$defs).filter(({ name }) => !HIDDEN.includes(name)) : [],
)
const isCable = computed(() => page.value?.of === 'cable')
</script>

<template>
  <main>
    <p>
      <RouterLink to="/equipment">My equipment</RouterLink>
      <template v-if="job">
        · <RouterLink :to="{ name: 'job', params: { job } }">Back to the job</RouterLink></template
      >
    </p>
    <h1>{{ page?.label ?? 'Describe a device or cable' }}</h1>
    <label v-if="id === 'new'" class="field begin">
      <span>Begin from the nearest</span>
      <select @change="draft.beginFrom(($event.target as HTMLSelectElement).value)">
        <option value="" disabled selected>choose a class</option>
        <optgroup v-for="[kind, classes] in catalogue.kinds" :key="kind" :label="kind">
          <option v-for="item in classes" :key="item.id" :value="item.id">{{ item.label }}</option>
        </optgroup>
        <optgroup label="cable">
          <option v-for="lead in box?.leads" :key="lead.id" :value="lead.id">{{ lead.label }}</option>
        </optgroup>
      </select>
    </label>
    <p v-if="!page && id === 'new'" class="soft">
      Choose what is nearest, and change what is different on yours: its maximum input level, its gain range,
      its noise. A cable is drawn contact by contact in a job (Connections, <i>Cables of your own</i>) and
      kept from there. From nothing,
      <button type="button" class="link" @click="asText = true">edit it as text</button>.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="trouble" class="is-stop" role="alert">{{ trouble }}</p>
    <div class="bar">
      <Button :disabled="!page || Boolean(problem) || isSaved" @click="draft.save">Save</Button>
      <Button outlined :disabled="!undoable" @click="draft.undo">Undo</Button>
      <label class="check"><input v-model="asText" type="checkbox" /> As text</label>
      <span v-if="isSaved" class="soft" role="status">Saved in My equipment</span>
    </div>
    <div class="columns">
      <section v-if="asText || isCable">
        <label class="field">
          <span>Description</span>
          <textarea
            :value="text"
            rows="30"
            spellcheck="false"
            wrap="off"
            @input="draft.type(($event.target as HTMLTextAreaElement).value)"
          />
        </label>
      </section>
      <section v-else-if="values" class="form">
        <DatasheetForm :values="values" @change="draft.change($event)" />
        <ClassField
          v-for="field in fields"
          :key="field.name"
          :field="field"
          :value="values[field.name]"
          :defs="schema?.$defs"
          :path="field.name"
          :wrong-at="wrongAt"
          @change="draft.change({ ...values, [field.name]: $event })"
        />
      </section>
      <section v-if="page" class="shown" :class="{ old: problem }">
        <ClassPicture v-if="!isCable" :page="page" />
        <table v-if="moved.length" class="plain-table">
          <caption>
            In this job
          </caption>
          <thead>
            <tr>
              <th scope="col">track</th>
              <th scope="col" class="num">average</th>
              <th scope="col" class="num">peak</th>
              <th scope="col" class="num">noise</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="track in moved" :key="track.label">
              <td>{{ track.label }}</td>
              <td class="num">
                {{ formatLevel(track.average_before, 1) }} → {{ formatLevel(track.average_after, 1) }}
              </td>
              <td class="num">
                {{ formatLevel(track.peak_before, 1) }} → {{ formatLevel(track.peak_after, 1) }}
              </td>
              <td class="num">
                {{ formatLevel(track.noise_before, 1) }} → {{ formatLevel(track.noise_after, 1) }}
              </td>
            </tr>
          </tbody>
        </table>
        <dl>
          <template v-for="socket in page.sockets" :key="socket.id">
            <dt>{{ socket.label }}</dt>
            <dd>
              <p v-for="line in socket.lines" :key="line">{{ line }}</p>
            </dd>
          </template>
        </dl>
        <p v-for="line in page.lines" :key="line">{{ line }}</p>
        <dl>
          <template v-for="fact in page.facts" :key="fact.name">
            <dt>{{ fact.name }}</dt>
            <dd>{{ fact.words }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1rem;
  max-width: 80rem;
  margin: 0 auto;
  padding: 1.2rem 1.25rem 4rem;
}
h1 {
  font-size: 1.5rem;
}
.begin {
  max-width: 24rem;
}
.bar {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  padding: 0.5rem 0;
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.check {
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
  gap: 2rem;
  align-items: start;
}
section {
  display: grid;
  gap: 0.9rem;
  min-width: 0;
}
textarea {
  width: 100%;
  padding: 0.6rem;
  color: var(--ink);
  font-family: ui-monospace, monospace;
  font-size: 0.85rem;
  line-height: 1.45;
  background: var(--chalk);
  border: 1px solid var(--line);
}
.link {
  padding: 0;
  color: inherit;
  font: inherit;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
.shown {
  position: sticky;
  top: 3.6rem;
  max-height: calc(100vh - 4rem);
  overflow: auto;
}
.shown.old {
  opacity: 0.55;
}
caption {
  padding-bottom: 0.3rem;
  font-weight: 700;
  text-align: left;
}
dl {
  display: grid;
  grid-template-columns: minmax(6rem, auto) 1fr;
  gap: 0.3rem 1rem;
}
dt {
  font-weight: 700;
}
</style>
