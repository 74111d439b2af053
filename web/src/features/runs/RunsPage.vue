<script setup lang="ts">
import Button from 'primevue/button'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { Fix } from '@/api/client'
import { useKeys } from '@/composables/useKeys'
import { useJob } from '@/stores/job'
import DevicePanel from '@/ui/DevicePanel.vue'
import EmptyState from '@/ui/EmptyState.vue'
import ConnectRow from './ConnectRow.vue'
import RunPanel from './RunPanel.vue'
import TrackRow from './TrackRow.vue'
import VerdictPanel from './VerdictPanel.vue'

const job = useJob()
const router = useRouter()
const chosen = ref('')
const device = ref('')
const run = ref(String(useRoute().query.run ?? '')) // as a label on a cable names it
const litRun = ref('')

// Ways by another box were asked for, here or from another station: the run opens with them.
watch(
  () => job.boxesFor,
  (id) => id && (run.value = id),
  { immediate: true },
)
watch(run, (id) => id === job.boxesFor || (job.boxesFor = ''))

const blocks = computed(() => job.state?.devices.filter((item) => item.tracks.length) ?? [])
const loose = computed(
  () => job.state?.devices.filter((item) => !item.tracks.length && item.is_recording) ?? [],
)
const rows = computed(() => blocks.value.flatMap((block) => block.tracks))
const chosenRow = computed(() => rows.value.find(({ id }) => id === chosen.value))

/** Findings that touch the chosen row: its device, its track, or any run on its way. */
const findings = computed(() => {
  const row = chosenRow.value
  if (!row) return job.findings
  const runs = new Set(row.leads.map((lead) => lead.run))
  const last = row.stops.at(-1)?.device
  return job.findings.filter((finding) =>
    finding.run
      ? [finding.run, ...finding.more_runs].some((run) => runs.has(run))
      : finding.track
        ? finding.track === row.id
        : finding.device === last,
  )
})
const title = computed(() => {
  const row = chosenRow.value
  const owner = blocks.value.find((block) => block.tracks.some(({ id }) => id === row?.id))
  return row && owner ? `${owner.label}, track ${row.bus_label}` : 'All findings'
})

// Pointing at a finding lights the lead that it speaks of, and brings its row into view.
watch(
  () => job.pointed,
  async (id) => {
    const finding = job.findings.find((item) => item.id === id)
    litRun.value = finding?.run ?? ''
    if (!finding) return
    const row = rows.value.find(
      (item) => item.id === finding.track || item.leads.some((lead) => lead.run === finding.run),
    )
    if (!findings.value.includes(finding)) chosen.value = row?.id ?? ''
    await nextTick()
    if (row) document.getElementById(`row-${row.id}`)?.scrollIntoView({ block: 'nearest' })
  },
)

function step(by: number) {
  const ids = rows.value.map(({ id }) => id)
  const next = ids[Math.min(Math.max(ids.indexOf(chosen.value) + by, 0), ids.length - 1)]
  if (!next) return
  chosen.value = next
  document.getElementById(`row-${next}`)?.focus()
}

const openLevels = (track: string) => router.push({ name: 'levels', params: { track } })
useKeys({ j: () => step(1), k: () => step(-1), Escape: () => (chosen.value = '') })
</script>

<template>
  <div class="runs">
    <EmptyState
      v-if="!job.state?.devices.length"
      class="empty"
      title="Three ways to begin"
      text="Say what is recorded and take a whole rig; choose the devices from a list; or press / and type what there is: add boom shotgun as boom, then boom to bag 1, 7 m."
    >
      <Button @click="router.push('/')">Plan a shoot</Button>
      <Button outlined @click="router.push({ name: 'job' })">Choose devices</Button>
    </EmptyState>
    <VerdictPanel
      v-else
      :findings="findings"
      :title="title"
      :narrowed="Boolean(chosenRow)"
      @all="chosen = ''"
      @apply="(fix: Fix) => job.edit(fix.edits)"
      @boxes="job.boxesFor = $event"
    />
    <section class="rows" aria-label="Connections">
      <section v-for="block in blocks" :key="block.id" class="block">
        <header>
          <h2>
            <button type="button" @click="device = block.id">{{ block.label }}</button>
          </h2>
          <span class="soft">{{ block.class_label }}</span>
          <span class="head num soft">average</span>
          <span class="head num soft">peak</span>
          <span class="head num soft">verdict</span>
        </header>
        <TrackRow
          v-for="track in block.tracks"
          :key="track.id"
          :track="track"
          :chosen="track.id === chosen"
          :lit-run="litRun"
          @choose="chosen = track.id"
          @open="openLevels(track.id)"
          @device="device = $event"
          @run="run = $event"
          @light="litRun = $event"
        />
      </section>
      <ConnectRow />
      <p class="loose no-print">
        <RouterLink :to="{ name: 'leads' }">Cables of your own</RouterLink>
      </p>
      <p v-if="loose.length" class="loose">
        <span class="soft">Nothing plugged in:</span>
        <button v-for="item in loose" :key="item.id" type="button" @click="device = item.id">
          {{ item.label }}
        </button>
      </p>
    </section>
    <DevicePanel v-model:device="device" />
    <RunPanel v-model:run="run" :boxes="Boolean(run) && run === job.boxesFor" />
  </div>
</template>

<style scoped>
.empty {
  margin: 1rem 1.25rem 0;
}
.rows {
  padding: 1rem 1.25rem 3rem;
}
.block + .block {
  margin-top: 1.4rem;
}
.block > header {
  display: grid;
  grid-template-columns: auto 1fr 4.2rem 3.2rem 5.6rem;
  gap: 0.7rem;
  align-items: baseline;
  padding-bottom: 0.3rem;
  border-bottom: 2px solid var(--line-strong);
}
.block > header > span:nth-child(2) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h2 {
  font-size: 1.05rem;
}
h2 button,
.loose button {
  padding: 0;
  font-weight: 700;
  background: none;
  border: 0;
  cursor: pointer;
}
h2 button:hover,
.loose button:hover {
  text-decoration: underline;
}
.head {
  font-size: 0.85rem;
}
.loose a {
  color: inherit;
}
.loose {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  margin-top: 1.6rem;
}
@media (width < 700px) {
  .rows {
    padding: 0.6rem 0.8rem 2rem;
  }
  .block > header {
    grid-template-columns: 1fr 4.2rem 3.2rem 5.6rem;
  }
  .block > header > span:nth-child(2) {
    display: none;
  }
}
</style>
