<script setup lang="ts">
import { computed } from 'vue'

import type { LeadPicture } from '@/api/client'
import { formatOhm } from '@/format/levels'

/** A lead opened: contacts of both ends, the cores between them, and what lies in a core or across two contacts. */
const props = defineProps<{ picture: LeadPicture }>()

const ROW = 30
const TOP = 16
const NEAR = 118
const FAR = 352
const y = (contacts: readonly { name: string }[], name: string) =>
  TOP +
  ROW *
    Math.max(
      contacts.findIndex((contact) => contact.name === name),
      0,
    )
const rows = computed(() => Math.max(props.picture.near.length, props.picture.far.length))
const height = computed(() => TOP * 2 + ROW * (rows.value - 1))

const wires = computed(() =>
  (props.picture.wiring.wires ?? []).map((wire) => ({
    ...wire,
    from: y(props.picture.near, wire.near),
    to: y(props.picture.far, wire.far),
    screen: props.picture.near.find(({ name }) => name === wire.near)?.carries.includes('screen'),
  })),
)
const bridges = computed(() =>
  (props.picture.wiring.bridges ?? []).map((bridge, index) => {
    const sending = bridge.end === 'sending'
    const contacts = sending ? props.picture.near : props.picture.far
    const inset = bridge.ohm ? 45 + index * 8 : 16 + index * 5
    const x = sending ? NEAR + inset : FAR - inset
    return {
      ...bridge,
      x,
      end: sending ? NEAR : FAR,
      from: y(contacts, bridge.first),
      to: y(contacts, bridge.second),
    }
  }),
)
const windings = computed(() =>
  (props.picture.wiring.windings ?? []).map(({ near, far }) => ({
    near: near.map((name) => y(props.picture.near, name)) as [number, number],
    far: far.map((name) => y(props.picture.far, name)) as [number, number],
  })),
)
const words = computed(() =>
  [
    ...wires.value.map(({ near, far, ohm }) => `${near} to ${far}${ohm ? ` through ${formatOhm(ohm)}` : ''}`),
    ...bridges.value.map(
      ({ first, second, end, ohm }) =>
        `${first} and ${second} joined at the ${end === NEAR ? 'sending' : 'receiving'} end${ohm ? ` by ${formatOhm(ohm)}` : ''}`,
    ),
    ...windings.value.map(() => 'a 1:1 transformer'),
  ].join('; '),
)
</script>

<template>
  <figure>
    <figcaption>
      <strong>{{ picture.label }}</strong>
      <span v-if="picture.length_m" class="soft length">{{ picture.length_m }} m</span>
    </figcaption>
    <svg :viewBox="`0 0 470 ${height}`" role="img" :aria-label="`${picture.label}: ${words}`">
      <g v-for="(wire, index) in wires" :key="`w${index}`" :class="{ screen: wire.screen }">
        <line :x1="NEAR" :y1="wire.from" :x2="FAR" :y2="wire.to" />
        <g v-if="wire.ohm" :transform="`translate(235 ${(wire.from + wire.to) / 2})`">
          <rect class="part" x="-29" y="-9" width="58" height="18" />
          <text class="value" y="4.5">{{ formatOhm(wire.ohm) }}</text>
        </g>
        <g v-if="wire.blocks_dc" :transform="`translate(190 ${wire.from + (wire.to - wire.from) * 0.31})`">
          <rect class="gap" x="-3" y="-9" width="6" height="18" />
          <path d="M-3-9v18M3-9v18" />
        </g>
      </g>
      <g v-for="(bridge, index) in bridges" :key="`b${index}`">
        <path :d="`M${bridge.end} ${bridge.from}H${bridge.x}V${bridge.to}H${bridge.end}`" />
        <g
          v-if="bridge.ohm"
          :transform="`translate(${bridge.x} ${Math.min(bridge.from, bridge.to) + ROW / 2})`"
        >
          <rect class="part" x="-29" y="-9" width="58" height="18" />
          <text class="value" y="4.5">{{ formatOhm(bridge.ohm) }}</text>
        </g>
      </g>
      <g v-for="(winding, index) in windings" :key="`t${index}`">
        <path :d="`M${NEAR} ${winding.near[0]}H226V${winding.near[1]}H${NEAR}`" />
        <path :d="`M${FAR} ${winding.far[0]}H244V${winding.far[1]}H${FAR}`" />
        <path
          class="core"
          :d="`M232 ${winding.near[0]}V${winding.near[1]}M238 ${winding.near[0]}V${winding.near[1]}`"
        />
      </g>
      <g v-for="(contact, index) in picture.near" :key="`n${index}`">
        <text class="carries" :x="NEAR - 34" :y="TOP + ROW * index + 4.5" text-anchor="end">
          {{ contact.carries }}
        </text>
        <text class="name" :x="NEAR - 17" :y="TOP + ROW * index + 4.5">{{ contact.name }}</text>
        <rect :x="NEAR - 5" :y="TOP + ROW * index - 5" width="10" height="10" />
      </g>
      <g v-for="(contact, index) in picture.far" :key="`f${index}`">
        <rect class="socket" :x="FAR - 5" :y="TOP + ROW * index - 5" width="10" height="10" />
        <text class="name" :x="FAR + 17" :y="TOP + ROW * index + 4.5">{{ contact.name }}</text>
        <text class="carries" :x="FAR + 34" :y="TOP + ROW * index + 4.5">{{ contact.carries }}</text>
      </g>
    </svg>
    <p class="ends soft small">
      <span>{{ picture.sending }}</span>
      <span>{{ picture.receiving }}</span>
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  margin: 0.3rem 0;
  background: var(--chalk);
}
line,
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.screen line {
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.core {
  stroke-width: 1.5;
}
rect {
  fill: var(--ink);
}
.socket,
.part {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.gap {
  fill: var(--chalk);
}
text {
  font-size: 15px;
  fill: var(--ink);
}
.name,
.value {
  font-weight: 600;
  text-anchor: middle;
}
.value {
  font-size: 13px;
}
.carries {
  fill: var(--ink-soft);
}
.length {
  margin-left: 0.6rem;
}
.ends {
  display: flex;
  justify-content: space-between;
}
</style>
