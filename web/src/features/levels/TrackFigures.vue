<script setup lang="ts">
import type { Ladder } from '@/api/client'
import { formatLevel } from '@/format/levels'

/** What the track will hold, in three figures: its average beside the target, its peaks below clipping, its noise. */
defineProps<{ ladder: Ladder }>()
</script>

<template>
  <dl class="figures">
    <div>
      <dt>Average, dBFS</dt>
      <dd>
        <strong>{{ formatLevel(ladder.average_dbfs, 1) }}</strong> ±{{ formatLevel(ladder.tolerance_db) }}
      </dd>
      <dd class="soft small" :title="`${ladder.provenance} figures`">
        {{ ladder.target.result }}; {{ ladder.target.label }}: {{ ladder.target.words }}
      </dd>
    </div>
    <div>
      <dt>Peaks</dt>
      <dd>
        <strong>{{ formatLevel(ladder.peak_dbfs, 1) }}</strong>
      </dd>
      <dd v-if="ladder.over_db" class="clips">clips by {{ formatLevel(ladder.over_db, 1) }} dB</dd>
      <dd v-else-if="ladder.burst_over_db" class="burst">
        a burst clips by {{ formatLevel(ladder.burst_over_db, 1) }} dB
      </dd>
      <dd
        v-else-if="ladder.headroom_db !== null"
        class="soft small"
        title="By how much the expected peaks may rise before anything between microphone and file cuts them."
      >
        headroom {{ formatLevel(ladder.headroom_db, 1) }} dB<template v-if="ladder.limited_db"
          >; limiter takes {{ formatLevel(ladder.limited_db, 1) }} dB off a burst</template
        >
      </dd>
    </div>
    <div title="In the pauses, with nobody speaking: room, microphone and gear together.">
      <dt>Noise, A-weighted</dt>
      <dd>
        <strong>{{ formatLevel(ladder.noise_a_dbfs, 1) }}</strong>
      </dd>
      <dd class="soft small">{{ ladder.noises[0]?.name }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 2.6rem;
  padding: 0.6rem 0 0.3rem;
}
dt {
  font-size: 0.9rem;
  color: var(--ink-soft);
}
dd strong {
  font-size: 1.7rem;
  font-variant-numeric: tabular-nums;
}
.clips {
  font-weight: 700;
  color: var(--stop);
}
.burst {
  font-weight: 700;
  color: var(--caution);
}
</style>
