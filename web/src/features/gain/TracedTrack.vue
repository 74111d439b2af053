<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import { api, type Edit } from '@/api/client'
import { useFetched } from '@/composables/useFetched'
import LadderChart from '@/features/levels/LadderChart.vue'
import RungAccount from '@/features/levels/RungAccount.vue'
import { useJob } from '@/stores/job'

/** A track as the plan would make it, laid beside itself as it is: every number can be pointed at. */
const props = defineProps<{ track: string; edits: readonly Edit[] }>()
const job = useJob()
const ladders = useFetched(
  () => (job.newest ? ([job.newest.job, props.track, props.edits] as const) : null),
  async ([id, track, edits]) => {
    const [now, then] = await Promise.all([api.ladder(id, track, '', []), api.ladder(id, track, '', edits)])
    return { now, then }
  },
)
const box = useTemplateRef<HTMLElement>('box')
const chosen = ref<number | null>(null)
const pointed = computed(() => chosen.value ?? (ladders.value?.then.rungs.length ?? 1) - 1)
watch(ladders, async () => {
  chosen.value = null
  await nextTick()
  box.value?.scrollIntoView({ block: 'nearest' })
})
</script>

<template>
  <div v-if="ladders" ref="box">
    <p class="soft small">○ as it is now. Point at a stage to see how its level comes about.</p>
    <LadderChart
      :ladder="ladders.then"
      :others="[{ label: 'as it is now', mark: '○', ladder: ladders.now }]"
      :pointed="pointed"
      @point="chosen = $event"
    />
    <RungAccount :ladder="ladders.then" :pointed="pointed" />
  </div>
</template>
