<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useMe } from '@/stores/me'
import DrillBegin, { type DrillChoice } from './DrillBegin.vue'
import DrillJudged from './DrillJudged.vue'
import DrillSearch from './DrillSearch.vue'
import { useDrill } from './useDrill'

/** Would I notice? A rig with a hidden fault, to be found with what a set allows. */
const props = defineProps<{ drill?: string }>()
const route = useRoute()
const router = useRouter()
const mine = useMe()
const job = computed(() => (typeof route.params.job === 'string' ? route.params.job : ''))
const { drill, training, examples, ladders, groups, problem, isBusy, begin, look, answer, asJob } = useDrill(
  () => props.drill ?? '',
)
const at = (id: string) =>
  job.value
    ? { name: 'drill', params: { job: job.value, drill: id } }
    : { name: 'drills', params: { drill: id } }

async function draw(seed: number | null, asked: DrillChoice) {
  const { inJob, ...rest } = asked
  const id = await begin(seed, { ...rest, job: inJob ? job.value : null })
  if (id) await router.push(at(id))
}
async function open() {
  const made = await asJob()
  if (made) await router.push({ name: 'levels', params: made })
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
      :training="training"
      :examples="examples"
      :has-job="Boolean(job)"
      :is-busy="isBusy"
      :at="at"
      @draw="draw"
    />
    <template v-else-if="drill">
      <DrillJudged
        v-if="drill.judged"
        :judged="drill.judged"
        :ladders="ladders"
        :may-edit="mine.mayEdit"
        @open="open"
      />
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
