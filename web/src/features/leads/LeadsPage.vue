<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useLeadBox } from '@/composables/useLeadBox'
import { useOwnLeads } from '@/composables/useOwnLeads'
import { useJob } from '@/stores/job'
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import ContactGrid from './ContactGrid.vue'
import CoreParts from './CoreParts.vue'
import LeadEnds from './LeadEnds.vue'
import OwnLeads from './OwnLeads.vue'
import { firstDraft, useLeadDraft } from './useLeadDraft'

/** Leads of one's own, contact by contact: drawn and judged while they are made, saved with the job, used in a run. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const box = useLeadBox()
const known = ref('') // id of the lead that is being changed; empty for a new one
const make = useLeadDraft()
const leads = useOwnLeads()
const own = leads.own
const contacts = (connector: string) =>
  box.value?.ends.find((end) => end.connector === connector)?.contacts ?? []
const run = computed(() => job.state?.runs.find(({ run: id }) => id === route.query.run))

function begin(id: string) {
  const lead = own.value.find((item) => item.id === id) ?? box.value?.leads.find((item) => item.id === id)
  known.value = own.value.some((item) => item.id === id) ? id : ''
  make.take(lead ?? firstDraft())
  if (lead && !known.value) make.draft.label = `My ${lead.label}`
}

async function save(useIt: boolean) {
  const target = run.value
  const saved = await leads.save(make.draft, known.value)
  known.value = saved || known.value
  if (saved && useIt && target && (await leads.use(saved, target.run))) await router.push({ name: 'runs' })
}
</script>

<template>
  <div v-if="job.state" class="designer-page">
    <OwnLeads :here="known" :stock="box?.leads ?? []" @begin="begin" />

    <section v-if="box" class="designer">
      <LeadEnds :make="make" :ends="box.ends" />
      <ContactGrid
        :near="contacts(make.draft.sending.connector)"
        :far="contacts(make.draft.receiving.connector)"
        :is-joined="make.isJoined"
        :locked="job.readOnly"
        @toggle="make.toggle"
      />
      <CoreParts
        :wires="make.wires"
        :bridges="make.bridges"
        :near="contacts(make.draft.sending.connector)"
        :far="contacts(make.draft.receiving.connector)"
        :locked="job.readOnly"
        @wires="make.change({ wires: $event })"
        @bridges="make.change({ bridges: $event })"
      />
      <p class="save">
        <Button
          :disabled="job.readOnly || Boolean(make.problem) || !make.draft.label.trim()"
          @click="save(false)"
          >Save</Button
        >
        <Button v-if="run" :disabled="job.readOnly || Boolean(make.problem)" outlined @click="save(true)"
          >Save it and use it in cable {{ run.number }}</Button
        >
      </p>
    </section>

    <aside aria-label="What it does">
      <p v-if="make.problem" class="is-note" role="status">{{ make.problem }}</p>
      <template v-else-if="make.judged">
        <LeadDrawing v-for="(picture, name) in make.judged.pictures" :key="name" :picture="picture" />
        <p class="soft">
          {{
            make.judged.balanced
              ? 'The signal stays balanced on it.'
              : 'The signal is unbalanced on it: keep it short.'
          }}
          {{ make.judged.loss_db ? `It takes off ${make.judged.loss_db} dB.` : '' }}
        </p>
        <LeadUse v-for="use in make.judged.uses" :key="use.between" class="use" :use="use" />
      </template>
    </aside>
  </div>
</template>
