<script setup lang="ts">
import type { Pad } from '@/api/client'
import { formatLevel, formatOhm } from '@/format/levels'

/** A pad's parts, how sure its loss is, and what it would be with other gear at its ends. */
defineProps<{ pad: Pad }>()
const khz = (hertz: number) => (hertz > 1e5 ? 'above 100 kHz' : `${formatLevel(hertz / 1000)} kHz`)
</script>

<template>
  <section class="result">
    <p class="sum" role="status">
      loss <strong>{{ formatLevel(pad.loss_db, 2) }} dB</strong>
      <span>±3σ {{ formatLevel(pad.sigma3_low_db, 1) }} to {{ formatLevel(pad.sigma3_high_db, 1) }}</span>
      <span>worst {{ formatLevel(pad.worst_low_db, 1) }} to {{ formatLevel(pad.worst_high_db, 1) }}</span>
      <span>with ±{{ pad.tolerance_percent }} % parts</span>
    </p>
    <table class="plain-table parts">
      <thead>
        <tr>
          <th scope="col">part</th>
          <th scope="col">lies</th>
          <th scope="col" class="num">exact</th>
          <th scope="col" class="num">to solder</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in pad.parts" :key="item.name">
          <th scope="row">{{ item.name }}</th>
          <td>{{ item.role === 'series' ? 'in the core' : 'across' }}</td>
          <td class="num soft">{{ formatOhm(item.exact_ohm) }}</td>
          <td class="num">
            <strong>{{ formatOhm(item.ohms) }}</strong>
          </td>
        </tr>
      </tbody>
    </table>
    <dl>
      <dt>seen by the source</dt>
      <dd>{{ formatOhm(pad.input_impedance_ohm) }}</dd>
      <dt>seen by the input</dt>
      <dd>{{ formatOhm(pad.output_impedance_ohm) }}</dd>
      <dt
        title="Of source and pad, at the terminals of the load, which divides it; EIN is stated without a load"
      >
        thermal noise, loaded
      </dt>
      <dd>{{ formatLevel(pad.thermal_noise_dbu, 1) }} dBu</dd>
      <dt>treble to</dt>
      <dd>
        {{ khz(pad.corner_at_receiver_hz) }} at the receiving end, {{ khz(pad.corner_at_sender_hz) }} at the
        sending end
      </dd>
    </dl>
    <p v-for="line in pad.advice" :key="line">{{ line }}</p>
    <div class="met">
      <table class="plain-table">
        <caption>
          With another input
        </caption>
        <tbody>
          <tr v-for="item in pad.over_loads" :key="item.ohms">
            <th scope="row" class="num">{{ formatOhm(item.ohms) }}</th>
            <td class="num">{{ formatLevel(item.loss_db, 1) }} dB</td>
          </tr>
        </tbody>
      </table>
      <table class="plain-table">
        <caption>
          With another output
        </caption>
        <tbody>
          <tr v-for="item in pad.over_sources" :key="item.ohms">
            <th scope="row" class="num">{{ formatOhm(item.ohms) }}</th>
            <td class="num">{{ formatLevel(item.loss_db, 1) }} dB</td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.result {
  display: grid;
  gap: 0.9rem;
}
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1.4rem;
  font-size: 1.05rem;
}
.parts {
  max-width: 30rem;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.1rem 1rem;
}
dt {
  color: var(--ink-soft);
}
.met {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 14rem));
  gap: 2rem;
}
caption {
  padding-bottom: 0.2rem;
  font-weight: 600;
  text-align: left;
}
</style>
