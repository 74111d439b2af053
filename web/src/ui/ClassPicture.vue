<script setup lang="ts">
import { computed } from 'vue'

import type { ClassPage } from '@/api/client'

/** The sockets of a device, drawn from its description: what goes in on the left, what comes out on the right. */
const props = defineProps<{ page: ClassPage }>()
const ROW = 30
const WIDTH = 520

const sides = computed(() => ({
  in: props.page.sockets.filter(({ direction }) => direction === 'in'),
  out: props.page.sockets.filter(({ direction }) => direction === 'out'),
}))
const height = computed(() => Math.max(sides.value.in.length, sides.value.out.length, 1) * ROW + 24)
const at = (index: number) => 12 + ROW * index + ROW / 2
/** A large one is round and wide, a small one narrow, a digital one angular. */
const radius = (plug: string) => (/XLR|combo|TA|multi/.test(plug) ? 9 : /mm|RCA|BNC/.test(plug) ? 6 : 0)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" role="img" :aria-label="`Sockets of ${page.label}`">
    <rect class="body" x="120" y="4" :width="WIDTH - 240" :height="height - 8" />
    <g v-for="(side, direction) in sides" :key="direction">
      <g v-for="(socket, index) in side" :key="socket.id">
        <circle
          v-if="radius(socket.plug)"
          class="socket"
          :class="{ plug: !socket.is_socket }"
          :cx="direction === 'in' ? 120 : WIDTH - 120"
          :cy="at(index)"
          :r="radius(socket.plug)"
        />
        <rect
          v-else
          class="socket"
          :class="{ plug: !socket.is_socket }"
          :x="(direction === 'in' ? 120 : WIDTH - 120) - 7"
          :y="at(index) - 6"
          width="14"
          height="12"
        />
        <text
          :x="direction === 'in' ? 138 : WIDTH - 138"
          :y="at(index) + 4"
          :text-anchor="direction === 'in' ? 'start' : 'end'"
        >
          {{ socket.label }}
        </text>
        <text
          class="soft"
          :x="direction === 'in' ? 104 : WIDTH - 104"
          :y="at(index) + 4"
          :text-anchor="direction === 'in' ? 'end' : 'start'"
        >
          {{ socket.plug }}
        </text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 34rem;
  font-size: 12.5px;
}
.body {
  fill: none;
  stroke: var(--ink);
}
.socket {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.plug {
  fill: var(--ink);
}
text {
  fill: var(--ink);
}
text.soft {
  fill: var(--ink-soft);
}
</style>
