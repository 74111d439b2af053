<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'

import { api, type Edit, type Ladder } from '@/api/client'
import LadderChart from '@/features/levels/LadderChart.vue'
import RungAccount from '@/features/levels/RungAccount.vue'
import { useJob } from '@/stores/job'

/** A track as the plan would make it, laid beside itself as it is: every number can be pointed at. */
const props = defineProps<{ track: string; edits: readonly Edit[] }>()
const job = useJob()
const ladders = shallowRef<{ now: Ladder; then: Ladder } | null>(null)
const box = useTemplateRef<HTMLElement>('box')
const chosen = ref<number | null>(null)
const pointed = computed(() => chosen.value ?? (ladders.value?.then.rungs.length ?? 1) - 1)
let turn = 0

watch(
  [() => props.track, () => props.edits],
  async ([track, edits]) => {
    const mine = ++turn
    const name = job.newest?.job
    if (!name) return
    const [now, then] = await Promise.all([
      api.ladder(name, track, '', []),
      api.ladder(name, track, '', edits),
    ])
    if (mine !== turn) return
    ;[ladders.value, chosen.value] = [{ now, then }, null]
    await nextTick()
    box.value?.scrollIntoView({ block: 'nearest' })
  },
  { immediate: true },
)
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
