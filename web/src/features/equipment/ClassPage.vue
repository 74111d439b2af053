<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted } from 'vue'
import { useRoute } from 'vue-router'

import { formatLevel } from '@/format/levels'
import { useCatalogue } from '@/stores/catalogue'
import ClassPicture from '@/ui/ClassPicture.vue'
import { useClassText } from './useClassText'

/** A class as text, and beside it what it is: its sockets, what each takes and gives, and what that does to a job. */
const props = defineProps<{ id: string }>()
const job = String(useRoute().query.job ?? '')
const { text, kept, page, moved, problem, trouble, beginFrom, save } = useClassText(props.id, job)
const catalogue = useCatalogue()
onMounted(() => catalogue.load())

const isSaved = computed(() => text.value !== '' && text.value === kept.value)
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
      <select @change="beginFrom(($event.target as HTMLSelectElement).value)">
        <option value="" disabled selected>choose a class</option>
        <optgroup v-for="[kind, classes] in catalogue.kinds" :key="kind" :label="kind">
          <option v-for="item in classes" :key="item.id" :value="item.id">{{ item.label }}</option>
        </optgroup>
      </select>
    </label>
    <div class="columns">
      <section class="text">
        <label class="field">
          <span>Description</span>
          <textarea v-model="text" rows="30" spellcheck="false" wrap="off" />
        </label>
        <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
        <p v-if="trouble" class="is-stop" role="alert">{{ trouble }}</p>
        <p>
          <Button :disabled="!text.trim() || Boolean(problem) || isSaved" @click="save">Save</Button>
          <span v-if="isSaved" class="soft saved" role="status">Saved in My equipment</span>
        </p>
      </section>
      <section v-if="page" class="shown" :class="{ old: problem }">
        <ClassPicture v-if="page.of === 'device'" :page="page" />
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
      <section v-else>
        <p>
          Choose the nearest built-in class, and change what is different on yours: its maximum input level,
          its gain range, its noise. Each change is read at once.
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
main {
  display: grid;
  gap: 1rem;
  max-width: 76rem;
  margin: 0 auto;
  padding: 1.4rem 1.25rem 4rem;
}
h1 {
  font-size: 1.5rem;
}
.begin {
  max-width: 24rem;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(24rem, 100%), 1fr));
  gap: 1.8rem;
  align-items: start;
}
section {
  display: grid;
  gap: 0.8rem;
}
textarea {
  width: 100%;
  padding: 0.6rem;
  color: var(--ink);
  font-family: ui-monospace, monospace;
  font-size: 0.85rem;
  line-height: 1.45;
  background: var(--paper);
  border: 1px solid var(--line);
}
.shown.old {
  opacity: 0.55;
}
.saved {
  margin-left: 0.8rem;
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
