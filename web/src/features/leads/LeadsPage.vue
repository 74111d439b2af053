<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { api, type Edit, type LeadBox } from '@/api/client'
import { useJob } from '@/stores/job'
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import ContactGrid from './ContactGrid.vue'
import CoreParts from './CoreParts.vue'
import { firstDraft, useLeadDraft } from './useLeadDraft'

/** Leads of one's own, contact by contact: drawn and judged while they are made, saved with the job, used in a run. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const box = ref<LeadBox | null>(null)
const known = ref('') // id of the lead that is being changed; empty for a new one
const make = useLeadDraft()
const { draft, branch, judged, problem, wires, bridges, twoWays } = make
const own = computed(() => job.state?.plan.leads ?? [])
const contacts = (connector: string) =>
  box.value?.ends.find((end) => end.connector === connector)?.contacts ?? []
const run = computed(() => job.state?.runs.find(({ run: id }) => id === route.query.run))
onMounted(async () => (box.value = await api.leadBox()))

function begin(id: string) {
  const lead = own.value.find((item) => item.id === id) ?? box.value?.leads.find((item) => item.id === id)
  known.value = own.value.some((item) => item.id === id) ? id : ''
  make.take(lead ?? firstDraft())
  if (lead && !known.value) draft.value.label = `My ${lead.label}`
}

async function save(useIt: boolean) {
  const target = run.value
  const edit: Edit = { kind: 'save-lead', ...draft.value, id: known.value || null }
  if (!job.newest || !(await job.edit([edit]))) return
  known.value ||= own.value.at(-1)?.id ?? ''
  if (!useIt || !target) return
  const answer = await api.say(job.newest.job, `lead run ${target.number} by ${draft.value.label}`)
  const proposal = answer.proposals[0]
  if (!proposal) job.problem = answer.problem
  else if (await job.edit(proposal.edits)) await router.push({ name: 'runs' })
}
</script>

<template>
  <div v-if="job.state" class="page">
    <section class="made">
      <h2>Leads of your own</h2>
      <ul v-if="own.length">
        <li v-for="lead in own" :key="lead.id">
          <button type="button" :class="{ here: lead.id === known }" @click="begin(lead.id)">
            {{ lead.label }}
          </button>
          <Button
            text
            size="small"
            :disabled="job.readOnly"
            @click="job.edit([{ kind: 'remove-lead', lead: lead.id }])"
            >Remove</Button
          >
        </li>
      </ul>
      <p v-else class="soft">
        None yet. Join the contacts below, and see at once what each socket would hear.
      </p>
      <label class="field">
        <span>Begin with a copy of</span>
        <select value="" @change="begin(($event.target as HTMLSelectElement).value)">
          <option value="">an empty lead</option>
          <option v-for="lead in box?.leads" :key="lead.id" :value="lead.id">{{ lead.label }}</option>
        </select>
      </label>
    </section>

    <section v-if="box" class="bench">
      <div class="ends">
        <label class="field"><span>Name</span><input v-model="draft.label" maxlength="80" /></label>
        <label v-for="end in ['sending', 'receiving'] as const" :key="end" class="field">
          <span>{{ end }} end</span>
          <span class="end">
            <select
              :aria-label="`${end} end`"
              :value="draft[end].connector"
              @change="make.setConnector(end, ($event.target as HTMLSelectElement).value)"
            >
              <option v-for="item in box.ends" :key="item.connector" :value="item.connector">
                {{ item.label }}
              </option>
            </select>
            <select v-model="draft[end].gender" :aria-label="`${end} end, gender`">
              <option>male</option>
              <option>female</option>
            </select>
          </span>
        </label>
        <label class="field">
          <span>Length for good, m (empty: made to length)</span>
          <input
            type="number"
            min="0.1"
            max="100"
            step="0.1"
            :value="draft.short_m"
            @change="draft.short_m = Number(($event.target as HTMLInputElement).value) || null"
          />
        </label>
        <label class="check"
          ><input type="checkbox" :checked="twoWays" @change="make.setTwoWays(!twoWays)" /> two ways, left and
          right of one plug</label
        >
        <label v-if="twoWays" class="field">
          <span>Which way</span>
          <select v-model="branch">
            <option value="L">left</option>
            <option value="R">right</option>
          </select>
        </label>
      </div>
      <ContactGrid
        :near="contacts(draft.sending.connector)"
        :far="contacts(draft.receiving.connector)"
        :is-joined="make.isJoined"
        :locked="job.readOnly"
        @toggle="make.toggle"
      />
      <CoreParts
        :wires="wires"
        :bridges="bridges"
        :near="contacts(draft.sending.connector)"
        :far="contacts(draft.receiving.connector)"
        :locked="job.readOnly"
        @wires="make.change({ wires: $event })"
        @bridges="make.change({ bridges: $event })"
      />
      <p class="save">
        <Button :disabled="job.readOnly || Boolean(problem) || !draft.label.trim()" @click="save(false)"
          >Save it</Button
        >
        <Button v-if="run" :disabled="job.readOnly || Boolean(problem)" outlined @click="save(true)"
          >Save it and use it in run {{ run.number }}</Button
        >
      </p>
    </section>

    <aside aria-label="What it does">
      <p v-if="problem" class="is-note" role="status">{{ problem }}</p>
      <template v-else-if="judged">
        <LeadDrawing v-for="(picture, name) in judged.pictures" :key="name" :picture="picture" />
        <p class="soft">
          {{
            judged.balanced
              ? 'The signal stays balanced on it.'
              : 'The signal is unbalanced on it: keep it short.'
          }}
          {{ judged.loss_db ? `It takes off ${judged.loss_db} dB.` : '' }}
        </p>
        <LeadUse v-for="use in judged.uses" :key="use.between" class="use" :use="use" />
      </template>
    </aside>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 28rem;
  gap: 1.5rem;
  padding: 1.25rem 1.25rem 3rem;
}
.made {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: auto 1fr 16rem;
  gap: 0.4rem 1.5rem;
  align-items: end;
}
.made ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
.made li button:first-child {
  padding: 0.3rem 0;
  font-weight: 600;
  background: none;
  border: 0;
  cursor: pointer;
}
.made .here {
  text-decoration: underline;
}
h2 {
  font-size: 1.2rem;
}
.bench,
aside {
  display: grid;
  gap: 1rem;
  align-content: start;
}
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
.save {
  display: flex;
  gap: 0.6rem;
}
.use {
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
@media (width < 1100px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
