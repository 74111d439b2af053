<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useOwnLeads } from '@/composables/useOwnLeads'
import { useJob } from '@/stores/job'
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import PadForm from './PadForm.vue'
import PadResult from './PadResult.vue'
import { usePad } from './usePad'

/** Attenuator design: an attenuator designed for a run or free, its wiring in the plug, saved and used as a lead. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const isOfJob = route.name === 'pads' // else it is a tool without a job
const { save, use } = useOwnLeads()
const runId = computed(() => (typeof route.query.run === 'string' ? route.query.run : ''))
const run = computed(() => job.state?.runs.find((item) => item.run === runId.value))
const { wanted, wish, pad, judged, problem, change } = usePad(
  computed(() => job.newest?.job),
  runId,
)
const analogue = computed(() => job.state?.runs.filter(({ wireless }) => !wireless) ?? [])
const choose = (id: string) => router.replace({ name: 'pads', query: id ? { run: id } : {} })

async function keep(useIt: boolean) {
  const lead = pad.value?.lead
  const target = run.value
  const saved = lead ? await save(lead) : ''
  if (!saved || !useIt || !target || !(await use(saved, target.run))) return
  const fed = job.state?.devices
    .flatMap(({ tracks }) => tracks)
    .find(({ leads }) => leads.some(({ run: id }) => id === target.run))
  await router.push({ name: 'levels', params: { track: fed?.id ?? '' } })
}
</script>

<template>
  <div class="designer-page">
    <header>
      <h2>Attenuators</h2>
      <label v-if="isOfJob">
        for
        <select
          :value="runId"
          class="plain-input"
          @change="choose(($event.target as HTMLSelectElement).value)"
        >
          <option value="">no cable</option>
          <option v-for="item in analogue" :key="item.run" :value="item.run">
            cable {{ item.number }}, {{ item.label }}
          </option>
        </select>
      </label>
      <p v-if="wanted?.why" class="soft">{{ wanted.why }}</p>
    </header>
    <div class="designer">
      <PadForm v-if="wish && wanted" :wish="wish" :wanted="wanted" @change="change" />
      <p v-if="problem" class="is-note" role="alert">{{ problem }}</p>
      <PadResult v-else-if="pad" :pad="pad" />
    </div>
    <aside aria-label="Inside the cable">
      <template v-if="pad?.lead && judged && !problem">
        <LeadDrawing v-for="(picture, name) in judged.pictures" :key="name" :picture="picture" />
        <p v-if="isOfJob" class="save no-print">
          <Button :disabled="job.readOnly" outlined size="small" @click="keep(false)">Save this cable</Button>
          <Button v-if="run" :disabled="job.readOnly" size="small" @click="keep(true)"
            >Save it and use it in cable {{ run.number }}</Button
          >
        </p>
        <LeadUse v-for="item in judged.uses" :key="item.between" class="use" :use="item" />
      </template>
      <p v-else-if="pad" class="soft">
        Parts alone. A T or an H needs a joint between its resistors that no plug has a contact for: build it
        in a barrel or a box.
      </p>
      <p class="soft small">
        Phantom power goes through a pad between the legs and is dragged down by one to the screen. On a line
        feed switch it off.
      </p>
    </aside>
  </div>
</template>

<style scoped>
header {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.2rem;
  align-items: center;
}
header select {
  width: auto;
  max-width: 22rem;
}
h2 {
  font-size: 1.2rem;
}
</style>
