<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import type { Edit } from '@/api/client'
import LadderChart from '@/ui/LadderChart.vue'
import RungAccount from '@/ui/RungAccount.vue'
import { useTracedTrack } from './useTracedTrack'

/** A track as the plan would make it, laid beside itself as it is: every number can be pointed at. */
const props = defineProps<{ track: string; edits: readonly Edit[] }>()
const ladders = useTracedTrack(
  () => props.track,
  () => props.edits,
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
    <p class="soft small">Dotted: as it is now. Point at a stage to see how its level comes about.</p>
    <LadderChart
      :ladder="ladders.then"
      :other="{ label: 'as it is now', ladder: ladders.now }"
      :pointed="pointed"
      @point="chosen = $event"
    />
    <RungAccount :ladder="ladders.then" :pointed="pointed" />
  </div>
</template>
