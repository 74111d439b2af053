<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import DrillBegin from './DrillBegin.vue'
import DrillJudged from './DrillJudged.vue'
import DrillSearch from './DrillSearch.vue'
import { useDrill } from './useDrill'

/** Would I notice? A rig with a hidden fault, to be found with what a set allows. */
const props = defineProps<{ drill?: string }>()
const route = useRoute()
const router = useRouter()
const job = computed(() => (typeof route.params.job === 'string' ? route.params.job : ''))
const { drill, played, groups, problem, isBusy, begin, look, answer } = useDrill(
  () => props.drill ?? '',
  () => job.value,
)
const at = (id: string) =>
  job.value
    ? { name: 'drill', params: { job: job.value, drill: id } }
    : { name: 'drills', params: { drill: id } }

async function draw(seed: number | null, inJob: boolean) {
  const id = await begin(seed, inJob)
  if (id) await router.push(at(id))
}
</script>

<template>
  <component :is="job ? 'div' : 'main'" class="hand-page drill">
    <p v-if="!job"><RouterLink to="/">All jobs</RouterLink></p>
    <header>
      <component :is="job ? 'h2' : 'h1'">Drill</component>
      <p v-if="drill" role="status">
        {{ drill.title }}, number {{ drill.seed }}: <strong class="num">{{ drill.minutes }} min</strong>
        {{ drill.judged ? 'needed' : 'gone' }}
      </p>
      <p v-if="drill"><RouterLink :to="at('')">Another drill</RouterLink></p>
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <DrillBegin
      v-if="!props.drill"
      :played="played"
      :has-job="Boolean(job)"
      :is-busy="isBusy"
      :at="at"
      @draw="draw"
    />
    <template v-else-if="drill">
      <DrillJudged v-if="drill.judged" :judged="drill.judged" :wrong="drill.wrong" />
      <DrillSearch :drill="drill" :groups="groups" :is-busy="isBusy" @look="look" @answer="answer" />
    </template>
  </component>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.5rem;
  align-items: baseline;
}
</style>
