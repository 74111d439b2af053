<script setup lang="ts">
import { computed } from 'vue'

import { addresses } from '@/api/addresses'
import SoundPlayer from '@/ui/SoundPlayer.vue'
import { tools, useFields, useTool } from './useTools'

/** Tools that need no job. What they are asked stands in the address: a link gives a colleague the same answer. */
const RATES = ['23.976', '24', '25', '29.97', '29.97df', '30', '50', '59.94', '60']
const UNITS = ['dBu', 'dBV', 'V', 'mV']
const fields = useFields()
const is = (name: string) => fields[name]?.value ?? ''
const put = (name: string, event: Event) => {
  const field = fields[name]
  if (field) field.value = (event.target as HTMLInputElement | HTMLSelectElement).value
}
const number = (name: string) => Number(is(name).replace(',', '.').replace('−', '-'))

const level = useTool(
  () => `${is('value')} ${is('unit')} ${is('to')}`,
  () => tools.convert(number('value'), is('unit'), is('to')),
)
const delay = useTool(
  () => `${is('measure')} ${is('length')} ${is('fps')}`,
  () => tools.delay(is('measure'), number('length'), is('fps')),
)
const timecode = useTool(
  () => `${is('tc')} ${is('fps')} ${is('add')} ${is('tofps')}`,
  () => tools.timecode(is('tc'), is('fps'), is('add'), is('tofps')),
)
const drift = useTool(
  () => `${is('a')} ${is('b')} ${is('fps')} ${is('hours')}`,
  () => tools.drift(number('a'), number('b'), is('fps'), number('hours')),
)
const tone = computed(() => addresses.toolTone(number('level'), number('hz')))
const ltc = computed(() => addresses.toolTimecode(is('tc'), is('fps')))
</script>

<template>
  <div class="tools">
    <h1 class="visually-hidden">Tools</h1>
    <section aria-label="Levels and units">
      <h2>Levels and units</h2>
      <p class="row">
        <input aria-label="Level" inputmode="text" :value="is('value')" @change="put('value', $event)" />
        <select aria-label="Unit" :value="is('unit')" @change="put('unit', $event)">
          <option v-for="unit in UNITS" :key="unit">{{ unit }}</option>
        </select>
        <span>in</span>
        <select aria-label="Unit wanted" :value="is('to')" @change="put('to', $event)">
          <option v-for="unit in UNITS" :key="unit">{{ unit }}</option>
        </select>
      </p>
      <output :class="{ wrong: level.isWrong }">{{ level.words }}</output>
      <p class="soft small">Both are called line: +4 dBu and −10 dBV are 11.8 dB apart.</p>
    </section>
    <section aria-label="Delay">
      <h2>Delay</h2>
      <p class="row">
        <input aria-label="Length of the delay" :value="is('length')" @change="put('length', $event)" />
        <select aria-label="Measure" :value="is('measure')" @change="put('measure', $event)">
          <option value="frames">frames</option>
          <option value="ms">ms</option>
          <option value="metres">m of air</option>
        </select>
        <span>at</span>
        <select aria-label="Frame rate of the delay" :value="is('fps')" @change="put('fps', $event)">
          <option v-for="rate in RATES" :key="rate">{{ rate }}</option>
        </select>
      </p>
      <output :class="{ wrong: delay.isWrong }">{{ delay.words }}</output>
    </section>
    <section aria-label="Timecode">
      <h2>Timecode</h2>
      <p class="row">
        <input aria-label="Timecode" :value="is('tc')" @change="put('tc', $event)" />
        <span>at</span>
        <select aria-label="Frame rate" :value="is('fps')" @change="put('fps', $event)">
          <option v-for="rate in RATES" :key="rate">{{ rate }}</option>
        </select>
        <span>plus</span>
        <input
          aria-label="Frames or timecode to add"
          placeholder="0"
          :value="is('add')"
          @change="put('add', $event)"
        />
        <span>in</span>
        <select aria-label="Frame rate wanted" :value="is('tofps')" @change="put('tofps', $event)">
          <option value="">the same rate</option>
          <option v-for="rate in RATES" :key="rate">{{ rate }}</option>
        </select>
      </p>
      <output :class="{ wrong: timecode.isWrong }">{{ timecode.words }}</output>
    </section>
    <section aria-label="Drift and jams">
      <h2>Drift and jams</h2>
      <p class="row">
        <span>±</span>
        <input aria-label="First clock, ppm" :value="is('a')" @change="put('a', $event)" />
        <span>and ±</span>
        <input aria-label="Second clock, ppm" :value="is('b')" @change="put('b', $event)" />
        <span>ppm, for</span>
        <input aria-label="Hours" :value="is('hours')" @change="put('hours', $event)" />
        <span>h</span>
      </p>
      <output :class="{ wrong: drift.isWrong }">{{ drift.words }}</output>
    </section>
    <section aria-label="Tone and timecode as sound">
      <h2>Tone and timecode as sound</h2>
      <p class="row">
        <input aria-label="Level of the tone, dBFS" :value="is('level')" @change="put('level', $event)" />
        <span>dBFS,</span>
        <input aria-label="Frequency, Hz" :value="is('hz')" @change="put('hz', $event)" />
        <span>Hz</span>
      </p>
      <SoundPlayer :src="tone" name="tone.wav" label="30 s of tone" :quiet="0.05" />
      <p class="soft">Timecode as sound, a minute from {{ is('tc') }}</p>
      <SoundPlayer :src="ltc" name="timecode.wav" label="A minute of timecode as sound" :quiet="0.05" />
      <p class="soft small">
        It starts quiet: headphones off the ears and speakers down first. Timecode is loud and shrill.
      </p>
    </section>
    <section aria-label="More tools">
      <h2>More</h2>
      <p class="links">
        <RouterLink to="/tools/attenuators">Attenuators: resistors for a pad</RouterLink>
        <RouterLink to="/tools/cable">What a cable does, contact by contact</RouterLink>
        <RouterLink to="/connect">What joins two sockets</RouterLink>
        <RouterLink to="/check">Measure a recording</RouterLink>
        <RouterLink to="/sync-files">Sync files</RouterLink>
      </p>
    </section>
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
  gap: 1.6rem 3rem;
}
section {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.5rem;
  align-content: start;
}
h2 {
  padding-bottom: 0.3rem;
  font-size: 1.1rem;
  border-bottom: 1px solid var(--line-strong);
}
.row,
.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 0.6rem;
  align-items: center;
}
input,
select {
  min-height: 44px;
  padding: 0.25rem 0.5rem;
  background: var(--chalk);
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
input {
  width: 7.5rem;
}
output {
  font-size: 1.15rem;
  font-weight: 700;
  overflow-wrap: anywhere;
}
output.wrong {
  color: var(--stop);
  font-size: 1rem;
}
.links a {
  min-height: 32px;
}
</style>
