<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'

import type { Ladder } from '@/api/client'
import LadderAcross from './LadderAcross.vue'
import LadderUpright from './LadderUpright.vue'
import type { Overlay } from './ladderShape'

/** A chain with its levels: from left to right where there is room, from top to bottom where there is none. */
defineProps<{ ladder: Ladder; other?: Overlay; beside?: Ladder; pointed?: number }>()
const emit = defineEmits<{ point: [rung: number] }>()
const UPRIGHT_BELOW_PX = 600

const box = useTemplateRef<HTMLElement>('box')
const width = ref(1100)
let observer: ResizeObserver | undefined
onMounted(() => {
  observer = new ResizeObserver(([entry]) => entry && (width.value = Math.max(260, entry.contentRect.width)))
  if (box.value) observer.observe(box.value)
})
onBeforeUnmount(() => observer?.disconnect())
const drawing = computed(() => (width.value < UPRIGHT_BELOW_PX ? LadderUpright : LadderAcross))
</script>

<template>
  <div ref="box">
    <component
      :is="drawing"
      :width="width"
      :ladder="ladder"
      :other="other"
      :beside="beside"
      :pointed="pointed"
      @point="emit('point', $event)"
    />
  </div>
</template>
