<script setup lang="ts">
import { useMe } from '@/stores/me'
import StockList from './StockList.vue'
import TrunkLine from './TrunkLine.vue'
import { useStock } from './useStock'

/** What one owns, beside all jobs: jobs take out of it. */
const mine = useMe()
const { stock, problem, isBusy, actions } = useStock()
</script>

<template>
  <main class="hand-page">
    <p><RouterLink to="/">All jobs</RouterLink></p>
    <h1>Trunk</h1>
    <p>
      Cables, devices, batteries and what else you own. Every job says what it takes of it, and what is short.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <template v-if="stock">
      <TrunkLine
        v-if="mine.mayEdit"
        :is-first="!stock.pieces.length"
        :is-busy="isBusy"
        :cases="stock?.cases ?? []"
        :add="actions.add"
        :read="actions.read"
      />
      <p role="status">{{ stock.summary }}</p>
      <StockList v-if="stock.pieces.length" :stock="stock" :may-edit="mine.mayEdit" :actions="actions" />
    </template>
  </main>
</template>
