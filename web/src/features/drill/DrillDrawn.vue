<script setup lang="ts">
import type { Drill } from '@/api/client'

/** A knob, switch, menu, lamp or plug as it stands. The line beside it says the same: this is for the eye alone. */
defineProps<{ drawn: NonNullable<Drill['seen'][number]['drawn'][number]> }>()
const LEAST_DEG = -140
const RANGE_DEG = 280
/** How far a plug stands off its socket: firmly in, moving, out. */
const GAPS = [0, 5, 14]
const WIDEST = 118
/** Letters as high as they fit into the screen of a menu. */
const lettering = (name = '') => Math.min(10, WIDEST / Math.max(name.length, 1))
</script>

<template>
  <svg viewBox="0 0 72 34" aria-hidden="true">
    <g v-if="drawn.drawing === 'knob'">
      <path class="track" d="M 26.4 28.5 A 15 15 0 1 1 45.6 28.5" />
      <circle class="body" cx="36" cy="17" r="11" />
      <line
        class="mark"
        x1="36"
        y1="17"
        x2="36"
        y2="7"
        :transform="`rotate(${LEAST_DEG + RANGE_DEG * drawn.turned} 36 17)`"
      />
    </g>
    <g v-else-if="drawn.drawing === 'switch'">
      <rect class="body" x="12" y="9" width="48" height="16" rx="3" />
      <rect class="lever" :x="drawn.at ? 38 : 14" y="11" width="20" height="12" rx="2" />
      <text x="24" y="6.5" font-size="7">{{ drawn.positions[0] }}</text>
      <text x="48" y="6.5" font-size="7">{{ drawn.positions[1] }}</text>
    </g>
    <g v-else-if="drawn.drawing === 'menu'">
      <rect class="screen" x="2" y="2" width="68" height="30" rx="2" />
      <text class="on-screen" x="36" y="18" :font-size="lettering(drawn.positions[drawn.at])">
        {{ drawn.positions[drawn.at] }}
      </text>
      <circle
        v-for="(name, at) in drawn.positions.slice(0, 8)"
        :key="name"
        class="dot"
        :class="{ here: at === drawn.at }"
        :cx="36 + 7 * (at - (Math.min(drawn.positions.length, 8) - 1) / 2)"
        cy="27.5"
        r="1.6"
      />
    </g>
    <g v-else-if="drawn.drawing === 'lamp'">
      <circle class="lamp" :class="{ lit: drawn.at }" cx="36" cy="17" r="8" />
      <path
        v-if="drawn.at"
        class="rays"
        d="M36 2v4M36 28v4M21 17h4M47 17h4M25.5 6.5l3 3M43.5 24.5l3 3M25.5 27.5l3-3M43.5 9.5l3-3"
      />
    </g>
    <g v-else>
      <rect class="body" x="2" y="5" width="20" height="24" rx="2" />
      <rect class="hole" x="16" y="13" width="6" height="8" />
      <g :transform="`translate(${GAPS[drawn.at]} 0) rotate(${drawn.at === 1 ? 7 : 0} 22 17)`">
        <rect class="pin" x="14" y="15" width="10" height="4" />
        <rect class="plug" x="22" y="9" width="20" height="16" rx="2" />
        <path class="cord" d="M42 17h14" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 4.5rem;
  height: 2.1rem;
}
.track {
  fill: none;
  stroke: var(--line-strong);
  stroke-width: 1.5;
}
.body,
.hole,
.plug,
.lamp {
  fill: var(--sheet);
  stroke: var(--ink-soft);
  stroke-width: 1.2;
}
.mark {
  stroke: var(--ink);
  stroke-width: 2.5;
  stroke-linecap: round;
}
.lever,
.pin {
  fill: var(--ink);
}
.plug {
  fill: var(--ink-soft);
}
.cord,
.rays {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 2.5;
}
.rays {
  stroke-width: 1.5;
}
.screen {
  fill: var(--ink);
}
text {
  fill: var(--ink-soft);
  text-anchor: middle;
}
.on-screen {
  fill: var(--paper);
}
.dot {
  fill: none;
  stroke: var(--paper);
  stroke-width: 0.8;
}
.here {
  fill: var(--paper);
}
.lit {
  fill: var(--accent);
}
</style>
