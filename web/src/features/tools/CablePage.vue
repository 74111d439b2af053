<script setup lang="ts">
import LeadDrawing from '@/ui/LeadDrawing.vue'
import LeadUse from '@/ui/LeadUse.vue'
import { useCable } from './useCable'

/** What a cable does: its contacts drawn, and what arrives at each socket that it fits. */
const { ends, cables, cable, from, to, judged, problem, put } = useCable()
const chosen = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <div class="cable">
    <h1>What a cable does</h1>
    <p class="row">
      <label
        >from
        <select :value="from" @change="put({ from: chosen($event), cable: '' })">
          <option v-for="end in ends" :key="end.connector" :value="end.connector">{{ end.label }}</option>
        </select></label
      >
      <label
        >to
        <select :value="to" @change="put({ to: chosen($event), cable: '' })">
          <option v-for="end in ends" :key="end.connector" :value="end.connector">{{ end.label }}</option>
        </select></label
      >
      <label v-if="cable"
        >cable
        <select :value="cable.id" @change="put({ cable: chosen($event) })">
          <option v-for="item in cables" :key="item.id" :value="item.id">{{ item.label }}</option>
        </select></label
      >
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="ends.length && !cable" class="is-note" role="status">
      No single cable of the catalogue has these plugs in this order. Turn them round, or let
      <RouterLink to="/connect">Connect two things</RouterLink> find adapters.
    </p>
    <template v-if="judged">
      <div class="drawings">
        <LeadDrawing v-for="(picture, branch) in judged.pictures" :key="branch" :picture="picture" />
      </div>
      <p class="soft">
        {{
          judged.balanced
            ? 'The signal stays balanced on it.'
            : 'The signal is unbalanced on it: keep it short.'
        }}
        {{ judged.loss_db ? `It takes off ${judged.loss_db} dB.` : '' }}
      </p>
      <div class="uses">
        <LeadUse v-for="use in judged.uses" :key="use.between" :use="use" />
      </div>
      <p class="soft small">
        Cables that look the same are wired differently: test yours, and label it. Switch 48 V off before
        plugging.
      </p>
    </template>
  </div>
</template>

<style scoped>
.cable {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
}
h1 {
  font-size: 1.2rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.2rem;
}
select {
  max-width: 100%;
  min-height: 44px;
}
label {
  min-width: 0;
}
.drawings {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2rem;
}
.drawings > * {
  flex: 1 1 22rem;
  max-width: 32rem;
}
.uses {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 22rem), 1fr));
  gap: 1.2rem 2rem;
}
</style>
