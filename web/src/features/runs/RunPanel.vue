<script setup lang="ts">
import Button from 'primevue/button'
import Drawer from 'primevue/drawer'
import { computed, watch } from 'vue'

import { useJob } from '@/stores/job'
import FindingList from '@/ui/FindingList.vue'
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import RunTag from '@/ui/RunTag.vue'
import OtherLeads from './OtherLeads.vue'
import PathEditor from './PathEditor.vue'
import RunLengths from './RunLengths.vue'
import { useRunPicture } from './useRunPicture'

/** One run opened: its contacts and the result, issues, lengths and route, other leads, and its removal. */
const run = defineModel<string>('run', { required: true })
const props = defineProps<{ boxes: boolean }>()
const job = useJob()
const plan = computed(() => job.state?.plan.runs?.find(({ id }) => id === run.value))
const findings = computed(() =>
  job.findings.filter((finding) => [finding.run, ...finding.more_runs].includes(run.value)),
)
const graver = computed(() => findings.value.find(({ severity }) => severity !== 'note'))
const lead = computed(() => job.state?.runs.find((item) => item.run === run.value))

const picture = useRunPicture(run)
watch(plan, (found) => {
  if (!found) run.value = ''
})
</script>

<template>
  <Drawer
    :visible="Boolean(run)"
    position="right"
    style="width: 30rem"
    @update:visible="(shown: boolean) => shown || (run = '')"
  >
    <template #header>
      <h2 v-if="lead">Cable <RunTag :number="lead.number" :tape="lead.tape" /></h2>
    </template>
    <div v-if="plan && lead" class="panel">
      <p>{{ lead.label }}. {{ lead.plugs }}{{ lead.inside ? `, ${lead.inside}` : '' }}.</p>
      <template v-if="picture">
        <LeadDrawing v-for="(drawn, index) in picture.leads" :key="index" :picture="drawn" />
        <section class="comes">
          <h3>Result</h3>
          <LeadUse :use="picture.use" :but="graver?.title" />
        </section>
      </template>
      <section v-if="findings.length" class="mend" aria-label="Issues">
        <FindingList :findings="findings" @apply="job.edit($event.edits)" @boxes="job.boxesFor = $event" />
      </section>
      <h3>Length</h3>
      <RunLengths :run="plan" :lead="lead" />
      <h3>Cable route</h3>
      <PathEditor :run="plan" />
      <OtherLeads :run="plan.id" :asked="props.boxes" />
      <RouterLink :to="{ name: 'leads', query: { run: plan.id } }">Make a cable of your own</RouterLink>
      <p class="soft small">
        Cables on the floor: tape or ramp them where people walk, cross mains at right angles, keep clear of
        heat. Local rules decide.
      </p>
      <Button
        outlined
        size="small"
        :disabled="job.readOnly"
        @click="job.edit([{ kind: 'disconnect', run: plan.id }])"
        >Remove this cable</Button
      >
    </div>
  </Drawer>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 0.9rem;
}
.panel > :deep(button),
.panel > a {
  justify-self: start;
}
.panel > a {
  color: inherit;
}
.comes {
  display: grid;
  gap: 0.3rem;
  padding: 0.6rem 0.8rem;
  border-left: 4px solid var(--line-strong);
}
.mend {
  border-top: 1px solid var(--line);
}
h2 {
  display: flex;
  gap: 0.5rem;
  font-size: 1.1rem;
}
h3 {
  font-size: 1rem;
}
</style>
