<script setup lang="ts">
import { computed, onMounted } from 'vue'

import type { components } from '@/api/schema'
import { useCatalogue } from '@/stores/catalogue'
import { useJob } from '@/stores/job'
import KeptInput from '@/ui/KeptInput.vue'

type JobEdit = components['schemas']['SetJobModel']
type Defaults = components['schemas']['DefaultsModel']

/** What holds for the whole job. */
const job = useJob()
const catalogue = useCatalogue()
const defaults = computed(() => job.state?.plan.defaults)
onMounted(() => catalogue.load())

/** Targets to choose from: those of the program, and those of one's own. */
const targets = computed(() => [
  ...(catalogue.value?.targets ?? []),
  ...(job.state?.plan.targets ?? []).map(({ id, label }) => ({ id, label, words: 'your own' })),
])
const ROLES = [
  { field: 'effects_target', label: 'Level target, effects' },
  { field: 'guide_target', label: 'Level target, scratch track' },
  { field: 'timecode_target', label: 'Level target, timecode' },
] as const

const text = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value
function set(change: Omit<JobEdit, 'kind'>) {
  void job.edit([{ kind: 'set-job', ...change } as JobEdit])
}

/** Another place is as loud as such places usually are, until somebody measures it. */
function setPlace(room: string) {
  const usual = catalogue.value?.rooms.find(({ id }) => id === room)
  set(usual ? { room, room_noise_db_spl: usual.noise_db_a, rumble_db_spl: usual.rumble_db_spl } : { room })
}
</script>

<template>
  <section v-if="defaults && job.state">
    <h2>Job</h2>
    <fieldset :disabled="job.readOnly">
      <label class="field wide">
        <span>Name</span>
        <KeptInput
          :value="job.state.plan.name"
          maxlength="80"
          required
          @change="set({ name: text($event) })"
        />
      </label>
      <label class="field">
        <span>Frame rate</span>
        <select :key="job.refusals" :value="defaults.frame_rate" @change="set({ frame_rate: text($event) })">
          <option v-for="rate in catalogue.value?.frame_rates" :key="rate">{{ rate }}</option>
        </select>
      </label>
      <label class="field">
        <span>Place</span>
        <select :key="job.refusals" :value="defaults.room" @change="setPlace(text($event))">
          <option v-for="room in catalogue.value?.rooms" :key="room.id" :value="room.id">
            {{ room.label }}
          </option>
        </select>
      </label>
      <label class="field">
        <span>Room noise, dB(A)</span>
        <KeptInput
          type="number"
          min="0"
          max="130"
          :value="defaults.room_noise_db_spl"
          @change="set({ room_noise_db_spl: Number(text($event)) })"
        />
      </label>
      <label class="field wide">
        <span>Target</span>
        <select
          :key="job.refusals"
          aria-label="Target"
          :value="defaults.target"
          @change="set({ target: text($event) })"
        >
          <option v-for="target in targets" :key="target.id" :value="target.id">
            {{ target.label }}: {{ target.words }}
          </option>
        </select>
      </label>
    </fieldset>
    <details class="more">
      <summary>More: other targets, tone, mains, sample rate, spare cable, radio</summary>
      <fieldset :disabled="job.readOnly">
        <label v-for="role in ROLES" :key="role.field" class="field">
          <span>{{ role.label }}</span>
          <select
            :key="job.refusals"
            :value="defaults[role.field]"
            @change="set({ [role.field]: text($event) })"
          >
            <option v-for="target in targets" :key="target.id" :value="target.id" :title="target.words">
              {{ target.label }}
            </option>
          </select>
        </label>
        <label class="field wide">
          <span>Matching options</span>
          <select
            :key="job.refusals"
            :value="defaults.school"
            @change="set({ school: text($event) as Defaults['school'] })"
          >
            <option value="clean">always the cleanest</option>
            <option value="guide">simplest that the room hides</option>
          </select>
          <small class="soft">which match is offered first</small>
        </label>
        <label class="field">
          <span>Tone, dBFS</span>
          <KeptInput
            type="number"
            min="-40"
            max="0"
            :value="defaults.alignment_dbfs"
            @change="set({ alignment_dbfs: Number(text($event)) })"
          />
          <small class="soft">what is sent and read in Line-up</small>
        </label>
        <label class="field">
          <span>Low-frequency noise, dB SPL</span>
          <KeptInput
            type="number"
            min="0"
            max="130"
            :value="defaults.rumble_db_spl"
            @change="set({ rumble_db_spl: Number(text($event)) })"
          />
          <small class="soft">wind and traffic: which low cut is advised</small>
        </label>
        <label class="field">
          <span>Mains, Hz</span>
          <select
            :key="job.refusals"
            :value="defaults.mains_hz"
            @change="set({ mains_hz: Number(text($event)) })"
          >
            <option :value="50">50</option>
            <option :value="60">60</option>
          </select>
          <small class="soft">at which frequency hum is looked for</small>
        </label>
        <label class="field">
          <span>Sample rate, Hz</span>
          <select
            :key="job.refusals"
            :value="defaults.sample_rate_hz"
            @change="set({ sample_rate_hz: Number(text($event)) })"
          >
            <option v-for="rate in [44100, 48000, 96000, 192000]" :key="rate" :value="rate">
              {{ rate }}
            </option>
          </select>
          <small class="soft">what every digital link must agree on</small>
        </label>
        <label class="field">
          <span>Spare cable at each end, m</span>
          <KeptInput
            type="number"
            min="0"
            max="20"
            step="0.1"
            :value="defaults.slack_end_m"
            @change="set({ slack_end_m: Number(text($event)) })"
          />
          <small class="soft">how much longer a cable is than its route</small>
        </label>
        <label class="field">
          <span>Minimum channel spacing, MHz</span>
          <KeptInput
            type="number"
            min="0.001"
            max="10"
            step="0.025"
            :value="defaults.radio_guard_mhz"
            @change="set({ radio_guard_mhz: Number(text($event)) })"
          />
          <small class="soft">how near a product of two radios may come</small>
        </label>
        <label class="check">
          <input
            :key="job.refusals"
            type="checkbox"
            :checked="defaults.frequencies_cleared ?? false"
            @change="set({ frequencies_cleared: !defaults.frequencies_cleared })"
          />
          radio frequencies cleared for the place
        </label>
      </fieldset>
    </details>
    <p class="soft small">
      Room noise is what a sound level meter reads where the microphones stand; a directional microphone picks
      up less of it, which is taken into account. Low-frequency noise is unweighted, as the microphone in its
      windshield picks it up.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 0.7rem;
  font-size: 1.2rem;
}
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
  gap: 0.8rem;
  margin: 0;
  padding: 0;
  border: 0;
}
.check {
  grid-column: span 2;
  align-self: end;
  padding-bottom: 0.4rem;
}
.wide {
  grid-column: span 2;
}
.more {
  margin-top: 0.8rem;
}
.more fieldset {
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  padding-top: 0.6rem;
}
</style>
