<script setup lang="ts">
import type { Clock } from '@/api/client'
import { plainNumber } from '@/format/levels'
import { useJob } from '@/stores/job'
import SeverityMark from '@/ui/SeverityMark.vue'
import KeptInput from '@/ui/KeptInput.vue'
import ClapDelay from './ClapDelay.vue'
import { usePictureDelay } from './usePictureDelay'

/** How late the pictures of a switcher or a monitor are, and what sound asks for that comes beside them. */
const props = defineProps<{ late: Clock['screens'][number] }>()
const job = useJob()
const { problem, save } = usePictureDelay()
const measured = (picture: (typeof props.late.pictures)[number], event: Event) =>
  save(picture, (event.target as HTMLInputElement).value)
type Windows = Clock['screens'][number]['windows']
const verdict = (windows: Windows) => windows.map(({ said, source }) => `${said} (${source})`).join(', ')
const grave = (windows: Windows) =>
  windows.some(({ id, holds }) => id === 'accepted' && !holds) ? 'caution' : 'note'
const way = (parts: { what: string; ms: number }[]) =>
  parts.map(({ what, ms }) => `${what} ${plainNumber(ms)} ms`).join(', ')
</script>

<template>
  <section>
    <h3>{{ late.is_switcher ? 'Picture delay at' : 'Picture delay on' }} {{ late.label }}</h3>
    <p>
      <SeverityMark
        v-if="late.windows.some(({ holds }) => !holds)"
        :severity="grave(late.windows)"
        :size="12"
      />
      {{
        late.is_switcher
          ? 'Sound that comes to it straight is early by'
          : 'Whoever looks at it and hears the set sees late by'
      }}
      {{ plainNumber(late.late_frames) }} frames<template v-if="late.is_switcher"
        >. Delay it by <strong>{{ late.delay_ms.toFixed(1) }} ms</strong>, {{ late.delay_samples }} samples,
        as long as {{ late.delay_metres.toFixed(0) }} m of air; sound that comes with its picture needs
        none</template
      ><template v-else
        >, {{ late.delay_ms.toFixed(1) }} ms: judge lips by the recorded file, not here</template
      >.
    </p>
    <p class="soft small">Without: {{ verdict(late.windows) }}.</p>
    <ul>
      <li v-for="picture in late.pictures" :key="`${picture.device} ${picture.over_sdi}`">
        {{ picture.camera }}{{ picture.over_sdi ? ', SDI' : '' }}:
        <KeptInput
          class="plain-input num frames"
          spellcheck="false"
          :value="picture.own_frames"
          :aria-label="`${picture.camera}, picture late by, frames or ms`"
          :disabled="job.readOnly"
          @change="measured(picture, $event)"
        />
        frames late<template v-if="picture.late_frames !== picture.own_frames"
          >, and what comes into it before: {{ plainNumber(picture.late_frames) }} frames in all</template
        >, {{ picture.late_ms.toFixed(0) }} ms<template v-if="picture.hold_frames"
          >; hold it back by {{ plainNumber(picture.hold_frames) }} more, to be as late as the
          latest</template
        >
      </li>
      <li>{{ late.label }} itself: {{ plainNumber(late.own_frames) }} frames</li>
      <li v-for="sound in props.late.sounds" :key="sound.run">
        Cable {{ sound.number }} from {{ sound.sender }}: {{ sound.least_ms.toFixed(1)
        }}<template v-if="sound.most_ms - sound.least_ms >= 0.05">
          to {{ sound.most_ms.toFixed(1) }}</template
        >
        ms late<template v-if="sound.parts.length"> ({{ way(sound.parts) }})</template
        ><template v-if="sound.delay_ms !== null"
          >. Delay it by <strong>{{ sound.delay_ms.toFixed(1) }} ms</strong>:
          {{ sound.delay_frames!.toFixed(2) }} frames, {{ sound.delay_samples }} samples,
          {{ sound.delay_metres!.toFixed(0) }} m of air</template
        ><template v-else>: later than the picture by {{ Math.abs(sound.early_ms).toFixed(0) }} ms</template>.
        As it is: {{ verdict(sound.windows) }}.
      </li>
    </ul>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <ClapDelay v-if="late.is_switcher" :late="late" />
  </section>
</template>

<style scoped>
.frames {
  display: inline-block;
  width: 5.2rem;
}
h3 {
  margin-bottom: 0.3rem;
}
ul {
  padding: 0.3rem 0 0 1.2rem;
  list-style: disc;
}
</style>
