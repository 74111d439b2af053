<script setup lang="ts">
import Button from 'primevue/button'
import { nextTick, ref, useTemplateRef, watch } from 'vue'

import type { Finding, Fix } from '@/api/client'
import SeverityMark from './SeverityMark.vue'

/** A finding with its reason and fixes. The first fix answers to `a` while the finding is pointed at. */
const props = defineProps<{
  finding: Finding
  fixes: readonly Fix[]
  isThinking: boolean
  pointed: boolean
  locked: boolean
}>()
const emit = defineEmits<{ point: []; apply: [fix: Fix]; boxes: [run: string] }>()
const showAll = ref(false)
const card = useTemplateRef<HTMLElement>('card')

watch(
  () => props.pointed,
  async (pointed) => {
    await nextTick()
    if (pointed) card.value?.scrollIntoView({ block: 'nearest' })
  },
)
</script>

<template>
  <article ref="card" class="finding" :class="{ pointed }" :data-rule="finding.rule" @click="emit('point')">
    <h3 :class="`is-${finding.severity}`">
      <SeverityMark :severity="finding.severity" />
      <span class="visually-hidden">{{ finding.severity }}:</span>
      {{ finding.title }}
    </h3>
    <p class="text">{{ finding.text }}</p>
    <ul v-if="finding.beneath.length" class="soft small beneath">
      <li v-for="other in finding.beneath" :key="other.title">
        with it: <span :title="other.text">{{ other.title }}</span>
      </li>
    </ul>
    <p v-if="pointed && isThinking && !locked" class="soft small">Trying fixes …</p>
    <p v-if="pointed && finding.verify" class="soft small">To be sure: {{ finding.verify }}</p>
    <p v-if="pointed" class="soft small">Source: {{ finding.source_words }}</p>
    <div v-if="(fixes.length || finding.has_inserted_devices) && !locked" class="fixes no-print">
      <Button v-if="fixes[0]" :outlined="!pointed" size="small" @click.stop="emit('apply', fixes[0])">
        {{ fixes[0].label }} <kbd v-if="pointed">a</kbd>
      </Button>
      <ul v-if="pointed && fixes[0] && fixes[0].steps.length > 2" class="soft small beneath">
        <li v-for="step in fixes[0].steps" :key="step">{{ step }}</li>
      </ul>
      <template v-if="fixes.length > 1">
        <Button v-if="!showAll" text size="small" @click.stop="showAll = true">
          {{ fixes.length - 1 }} other {{ fixes.length === 2 ? 'way' : 'ways' }}
        </Button>
        <Button
          v-for="fix in showAll ? fixes.slice(1) : []"
          :key="fix.label"
          outlined
          size="small"
          :title="fix.steps.join('\n')"
          @click.stop="emit('apply', fix)"
        >
          {{ fix.label }}
        </Button>
      </template>
      <Button
        v-if="finding.has_inserted_devices"
        :outlined="!pointed || fixes.length > 0"
        size="small"
        @click.stop="emit('boxes', finding.run)"
      >
        Via another device <kbd v-if="pointed && !fixes.length">a</kbd>
      </Button>
    </div>
  </article>
</template>

<style scoped>
.finding {
  display: grid;
  gap: 0.4rem;
  padding: 0.9rem 0.9rem 0.9rem 1rem;
  border-bottom: 1px solid var(--line);
  border-left: 4px solid transparent;
}
.finding.pointed {
  background: var(--chalk);
  border-left-color: var(--pin);
}
h3 {
  display: flex;
  gap: 0.45rem;
  align-items: center;
  font-size: 1rem;
}
/* Where there is room, what to do stands beside what is wrong. */
@container (width > 44rem) {
  .finding {
    grid-template-columns: minmax(0, 1fr) minmax(12rem, 24rem);
    gap: 0 1.5rem;
    padding: 0.5rem 0.4rem 0.5rem 0.6rem;
  }
  .finding > .fixes {
    margin-top: 0;
  }
  .finding > * {
    grid-column: 1;
  }
  .finding > .fixes {
    grid-row: 1 / span 4;
    grid-column: 2;
    align-content: start;
    justify-content: end;
  }
}
.beneath {
  margin: 0;
  padding-left: 0;
  list-style: none;
}
.fixes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  margin-top: 0.2rem;
}
</style>
