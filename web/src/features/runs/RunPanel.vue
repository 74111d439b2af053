<script setup lang="ts">
import Button from 'primevue/button'
import Drawer from 'primevue/drawer'
import { computed, ref, watch } from 'vue'

import { api, type Join } from '@/api/client'
import { useJob } from '@/stores/job'
import RunTag from '@/ui/RunTag.vue'

/** One run: its leads with their lengths, other leads that would do, and the way out. */
const run = defineModel<string>('run', { required: true })
const job = useJob()
const joins = ref<Join[]>([])
const plan = computed(() => job.state?.plan.runs?.find(({ id }) => id === run.value))
const lead = computed(() => job.state?.runs.find((item) => item.run === run.value))
const parts = computed(() => plan.value?.parts ?? [])

watch([run, () => job.newest?.revision], async ([id]) => {
  joins.value = id && job.newest && plan.value ? await api.joins(job.newest.job, id) : []
})
watch(plan, (found) => {
  if (!found) run.value = ''
})

function setLength(index: number, event: Event) {
  const length_m = Number((event.target as HTMLInputElement).value)
  const changed = parts.value.map((part, at) => (at === index ? { ...part, length_m } : part))
  void job.edit([{ kind: 'set-parts', run: run.value, parts: changed }])
}
</script>

<template>
  <Drawer
    :visible="Boolean(run)"
    position="right"
    style="width: 26rem"
    @update:visible="(shown: boolean) => shown || (run = '')"
  >
    <template #header>
      <h2 v-if="lead">Run <RunTag :number="lead.number" :tape="lead.tape" /></h2>
    </template>
    <div v-if="plan && lead" class="panel">
      <p>{{ lead.label }}. {{ lead.plugs }}{{ lead.inside ? `, ${lead.inside}` : '' }}.</p>
      <label v-for="(part, index) in parts" :key="index" class="field">
        <span>{{ lead.parts[index] }}{{ part.branch ? ` (${part.branch})` : '' }}, length in m</span>
        <input
          type="number"
          min="0"
          max="500"
          step="0.1"
          :value="part.length_m"
          :disabled="job.readOnly"
          @change="setLength(index, $event)"
        />
      </label>
      <h3>Other leads that join these two</h3>
      <ul>
        <li v-for="join in joins" :key="join.label">
          <Button
            class="choice"
            outlined
            size="small"
            :disabled="job.readOnly"
            @click="job.edit(join.edits)"
            >{{ join.label }}</Button
          >
          <span class="soft small">{{ join.faults.join('; ') || `${join.unbalanced_m} m unbalanced` }}</span>
        </li>
      </ul>
      <p class="soft small">
        Cables on the floor: tape or ramp them where people walk, cross mains at right angles, keep clear of
        heat.
      </p>
      <Button
        outlined
        size="small"
        :disabled="job.readOnly"
        @click="job.edit([{ kind: 'disconnect', run: plan.id }])"
        >Take this run out</Button
      >
    </div>
  </Drawer>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 0.9rem;
  justify-items: start;
}
.field {
  width: 100%;
}
h2 {
  display: flex;
  gap: 0.5rem;
  font-size: 1.1rem;
}
h3 {
  font-size: 1rem;
}
li {
  display: grid;
  gap: 0.2rem;
  margin-bottom: 0.7rem;
}
.choice {
  justify-content: start;
  text-align: left;
}
</style>
