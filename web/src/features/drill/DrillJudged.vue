<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'

import type { Drill, DrillLadders } from '@/api/client'
import LadderChart from '@/ui/LadderChart.vue'

/** The true fault, one's own search beside the shortest, what it would have cost, and what prevents it. */
const props = defineProps<{
  judged: NonNullable<Drill['judged']>
  ladders: DrillLadders | null
  mayEdit: boolean
}>()
const emit = defineEmits<{ open: [] }>()
const searches = computed(
  () =>
    [
      ['Your search', props.judged.own],
      ['The order that is shortest on average', props.judged.best],
    ] as const,
)
const where = computed(
  () => props.ladders?.at.flatMap((at) => props.ladders?.planned.rungs[at]?.label ?? []) ?? [],
)
</script>

<template>
  <section class="judged" aria-label="How it went">
    <h3 role="status">{{ judged.truth }}.</h3>
    <p>
      <strong class="num">{{ judged.is_right ? `${judged.score} of 100` : 'Not found' }}</strong>:
      {{ judged.minutes }} min. The order that is shortest on average takes {{ judged.best_minutes }} min to
      find this, {{ judged.expected_minutes }} min over all that can be wrong here; looking at everything in
      turn takes {{ judged.in_turn_minutes }} min<template v-if="judged.takes_lost"
        >; {{ judged.takes_lost }} {{ judged.takes_lost === 1 ? 'take' : 'takes' }} lost to a wrong
        fix</template
      >.
    </p>
    <div class="searches">
      <div v-for="[title, steps] in searches" :key="title">
        <h4>{{ title }}</h4>
        <ol>
          <li v-for="(step, number) in steps" :key="number">
            {{ step.label }}
            <span class="soft">{{ step.minutes }} min, {{ step.left }} left</span>
            <p class="soft small">{{ step.told }}</p>
          </li>
        </ol>
        <p v-if="!steps.length" class="soft">Nothing was looked at.</p>
      </div>
    </div>
    <template v-if="judged.lost.length">
      <h4>Consequences on the day</h4>
      <ul>
        <li v-for="line in judged.lost" :key="line">{{ line }}</li>
      </ul>
    </template>
    <p v-for="line in judged.prevents" :key="line"><strong>The checklist prevents it:</strong> {{ line }}</p>
    <template v-if="ladders">
      <h4>{{ ladders.planned.title }}, as planned and with the fault</h4>
      <p v-if="where.length" class="small">
        From {{ ladders.planned.origin }} to the file; the fault sits at
        <strong>{{ where.join('; ') }}</strong>.
      </p>
      <LadderChart
        :ladder="ladders.planned"
        :other="{ label: 'with the fault', ladder: ladders.faulty }"
        :pointed="ladders.at[0]"
      />
    </template>
    <p v-if="mayEdit" class="no-print">
      <Button size="small" outlined @click="emit('open')">Open the rig as a job</Button>
      <span class="soft small"> with the fault in it: its levels and findings show what it does.</span>
    </p>
  </section>
</template>

<style scoped>
.judged {
  display: grid;
  grid-template-columns: minmax(0, 1fr); /* the ladder takes the room that there is */
  gap: 0.6rem;
  padding-bottom: 1rem;
  border-bottom: 1px solid var(--line-strong);
}
.searches {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 1rem 2.5rem;
}
h4 {
  margin: 0;
}
ol {
  padding-left: 1.4rem;
  list-style: decimal;
}
ul {
  padding-left: 1.4rem;
  list-style: disc;
}
</style>
