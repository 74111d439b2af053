<script setup lang="ts">
import type { Measurement } from '@/api/client'
import { formatLevel, plainNumber } from '@/format/levels'
import SeverityMark from '@/ui/SeverityMark.vue'

/** One recording at several settings: what each gave, and which meets the target. */
defineProps<{ steps: NonNullable<Measurement['steps']>; target: number | null }>()
</script>

<template>
  <section>
    <p class="answer">
      <template v-if="steps.best_setting === null"
        >Every setting is cut off: turn the sender down and record again.</template
      >
      <template v-else>
        For {{ formatLevel(target) }} dBFS set <strong>{{ plainNumber(steps.best_setting) }}</strong><template
          v-if="steps.interpolated_setting !== null"
          >; between the marks it would be {{ plainNumber(steps.interpolated_setting) }}</template
        >.
        <template v-if="steps.db_per_setting !== null"
          >One mark is {{ formatLevel(steps.db_per_setting, 2) }} dB.</template
        >
        <template v-if="steps.noisy_from !== null"
          >From {{ plainNumber(steps.noisy_from) }} on it brings more noise than level.</template
        >
      </template>
    </p>
    <table class="plain-table">
      <thead>
        <tr>
          <th scope="col" class="num">setting</th>
          <th scope="col" class="num">level</th>
          <th scope="col" class="num">noise</th>
          <th scope="col"><span class="visually-hidden">verdict</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="item in steps.steps"
          :key="item.start_s"
          :class="{ best: item.setting === steps.best_setting }"
        >
          <th scope="row" class="num">{{ plainNumber(item.setting) }}</th>
          <td class="num">{{ formatLevel(item.level_dbfs, 1) }}</td>
          <td class="num">{{ formatLevel(item.noise_dbfs, 1) }}</td>
          <td>
            <template v-if="item.clipped"><SeverityMark severity="stop" :size="11" /> cut off</template>
            <template v-else-if="item.setting === steps.best_setting">nearest</template>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.answer {
  margin-bottom: 0.3rem;
  font-size: 1.05rem;
}
table {
  max-width: 24rem;
}
.best th,
.best td {
  font-weight: 700;
}
</style>
