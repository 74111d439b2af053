<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'

import type { Edit } from '@/api/client'
import { isCut } from '@/api/connection'
import { useJob } from '@/stores/job'
import { useMe } from '@/stores/me'
import PackingList from './PackingList.vue'
import PaperLinks from './PaperLinks.vue'
import ServedTable from './ServedTable.vue'
import StockList from './StockList.vue'
import TrunkLine from './TrunkLine.vue'
import { useTrunk } from './useTrunk'

/** Have we got what it takes: which piece serves which run, what is short, what is packed, and the paper that goes along. */
const job = useJob()
const mine = useMe()
const { id, trunk, stock, problem, isBusy, waiting, chosen, actions, tick, choose } = useTrunk()
const showsStock = ref(false)

const there = computed(() => trunk.value?.devices.filter(({ owned, needed }) => owned >= needed).length ?? 0)
const otherWay = (edits: readonly Edit[]) => job.edit([...edits])
</script>

<template>
  <div v-if="trunk" class="hand-page trunk">
    <header>
      <h2>Trunk</h2>
      <p role="status">{{ trunk.summary }}</p>
    </header>
    <p v-if="isCut || waiting.length" class="is-caution" role="status">
      <template v-if="isCut">No connection. </template>{{ waiting.length }}
      {{ waiting.length === 1 ? 'tick waits' : 'ticks wait' }} here and will be delivered.
    </p>
    <p v-if="problem && !isCut" class="is-stop" role="alert">{{ problem }}</p>
    <TrunkLine
      v-if="mine.mayEdit"
      :is-first="!trunk.has_stock"
      :is-busy="isBusy"
      :cases="stock?.cases ?? []"
      :add="actions.add"
      :read="actions.read"
    />
    <div class="parts">
      <section class="needs" aria-label="What the job needs">
        <template v-if="trunk.wanted.length && trunk.has_stock">
          <h3>Short</h3>
          <ul class="short">
            <li v-for="item in trunk.wanted" :key="item.words">
              <strong>{{ item.count }} × {{ item.words }}</strong>
              <span class="soft"> for cable {{ item.runs.join(', ') }}: buy, hire or borrow</span>
            </li>
          </ul>
          <ul v-if="trunk.other_ways.length" class="short" aria-label="Without buying">
            <li v-for="way in trunk.other_ways" :key="way.run">
              {{ way.words }}
              <Button
                size="small"
                outlined
                :disabled="job.readOnly"
                :aria-label="`Change the plan: ${way.words}`"
                @click="otherWay(way.edits)"
                >Change the plan</Button
              >
            </li>
          </ul>
        </template>
        <template v-if="trunk.held.length">
          <h3>Claimed by another job that day</h3>
          <ul class="short">
            <li v-for="(item, at) in trunk.held" :key="at">
              {{ item.count > 1 ? `${item.count} × ` : '' }}{{ item.words }}:
              <RouterLink :to="{ name: 'trunk', params: { job: item.job } }">{{ item.job_name }}</RouterLink>
            </li>
          </ul>
        </template>
        <ServedTable
          :trunk="trunk"
          :stock="stock"
          :chosen="chosen"
          :may-edit="mine.mayEdit"
          @choose="choose"
        />
        <p v-if="mine.mayEdit && trunk.has_stock && trunk.served.length" class="no-print claim">
          <Button v-if="!trunk.claimed" size="small" :disabled="isBusy" @click="actions.claim"
            >Claim these pieces{{ trunk.day ? ` for ${trunk.day}` : '' }}</Button
          >
          <Button v-else size="small" outlined :disabled="isBusy" @click="actions.release"
            >Claimed{{ trunk.day ? ` for ${trunk.day}` : '' }}: release</Button
          >
          <span class="soft small">No other job of that day is promised them.</span>
        </p>
        <details v-if="trunk.devices.length">
          <summary>
            Devices, batteries and cards: {{ there }} of {{ trunk.devices.length }} kinds are in the trunk
          </summary>
          <ul class="short">
            <li v-for="item in trunk.devices" :key="item.kind + item.label">
              {{ item.needed }} × {{ item.label }}
              <span class="soft">{{ item.owned >= item.needed ? 'there' : `${item.owned} there` }}</span>
            </li>
          </ul>
        </details>
      </section>
      <PackingList
        v-if="trunk.packing.length"
        :trunk="trunk"
        :may-tick="mine.me.access !== 'look'"
        :may-edit="mine.mayEdit"
        @use="actions.use"
        @tick="tick"
      />
    </div>
    <PaperLinks :job="id" />
    <details
      v-if="stock"
      class="no-print"
      @toggle="(event) => (showsStock = (event.target as HTMLDetailsElement).open)"
    >
      <summary>Everything in the trunk: {{ stock.summary }}</summary>
      <StockList v-if="showsStock" :stock="stock" :may-edit="mine.mayEdit" :actions="actions" />
    </details>
  </div>
  <p v-else-if="problem" class="is-stop alone" role="alert">{{ problem }}</p>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 1rem 2.5rem;
}
.needs {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}
.short {
  display: grid;
  gap: 0.4rem;
}
.claim {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  align-items: center;
}
.alone {
  padding: 1rem;
}
@media (width < 700px) {
  .trunk > :deep(.line) {
    order: 1;
  }
  .trunk > .paper,
  .trunk > details {
    order: 2;
  }
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  .needs {
    order: 1; /* in the hand one packs */
  }
}
</style>
