<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useAdvice } from '@/stores/advice'
import { useJob } from '@/stores/job'
import EmptyState from '@/ui/EmptyState.vue'
import AppRail from './AppRail.vue'
import HistoryPanel from './HistoryPanel.vue'
import JobLine from './JobLine.vue'
import KeysDialog from './KeysDialog.vue'
import NoticeBar from './NoticeBar.vue'
import PageHint from './PageHint.vue'
import { useKeys } from '@/composables/useKeys'
import { inHand } from './stations'
import { useNews } from './useNews'

const props = defineProps<{ job: string }>()
const store = useJob()
const advice = useAdvice()
const router = useRouter()
const route = useRoute()
const line = ref<InstanceType<typeof JobLine> | null>(null)
const showKeys = ref(false)
const showHistory = ref(false)

watch(
  () => props.job,
  (id) => void store.open(id),
  { immediate: true },
)
const go = (name: string) => () => void router.push({ name, params: { job: props.job } })

watch(
  () => store.boxesFor,
  (run) => run && go('runs')(),
)
watch(
  () => store.state?.plan.name,
  (name) => (document.title = name ? `${name} · Tidy Trunk` : 'Tidy Trunk'),
)

const pointedFinding = computed(() => store.findings.find(({ id }) => id === store.pointed))

function nextFinding() {
  const ids = store.findings.map(({ id }) => id)
  store.pointed = ids[(ids.indexOf(store.pointed) + 1) % ids.length] ?? ''
}

async function applyPointed() {
  const finding = pointedFinding.value
  if (!finding || store.readOnly) return
  const [fix] = await advice.whenReady(finding.id)
  if (pointedFinding.value?.id !== finding.id) return // somebody has gone on to another one
  if (fix) await store.edit(fix.edits)
  else if (finding.has_inserted_devices) store.boxesFor = finding.run
}

useNews()
useKeys({
  '/': () => line.value?.focus(),
  'g j': go('job'),
  'g r': go('runs'),
  'g l': go('levels'),
  'g i': go('line-up'),
  'g v': go('simulation'),
  'g c': go('clock'),
  'g t': go('trunk'),
  'g s': go('sync'),
  'g w': go('walk'),
  'g d': go('day'),
  'g o': go('log'),
  'g f': go('files'),
  'g x': go('wrong'),
  'g z': go('drill'),
  'g m': go('leads'),
  'g k': go('gear-tests'),
  'g p': go('gain'),
  'g b': go('pads'),
  f: nextFinding,
  a: () => void applyPointed(),
  u: () => void store.undo(),
  U: () => void store.redo(),
  h: () => (showHistory.value = !showHistory.value),
  '?': () => (showKeys.value = true),
})
</script>

<template>
  <div class="shell" :class="{ inhand: inHand(route.name) }">
    <AppRail :job="props.job" @keys="showKeys = true" @history="showHistory = true" />
    <JobLine ref="line" class="job-line" />
    <main class="station">
      <NoticeBar />
      <PageHint />
      <RouterView v-if="store.state" />
      <EmptyState
        v-else-if="store.problem"
        class="lost"
        title="This job cannot be shown"
        text="It may have been removed, or the program does not answer."
      >
        <Button @click="router.push('/')">All jobs</Button>
      </EmptyState>
    </main>
    <HistoryPanel v-model:visible="showHistory" />
    <KeysDialog v-model:visible="showKeys" />
  </div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template: auto minmax(0, 1fr) / 9.6rem minmax(0, 1fr);
  height: 100vh;
}
.station {
  position: relative; /* what is hidden within scrolls along, and makes the window no longer */
  min-width: 0;
  overflow: auto;
}
.lost {
  margin: 0 1.25rem;
}
@media (width < 700px) {
  .shell {
    grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  }
}
@media (width < 700px) {
  /* In the hand everything but the walk itself is in the way. */
  .inhand .job-line,
  .inhand .hint,
  .inhand :deep(.rail .name),
  .inhand :deep(.rail .foot button) {
    display: none;
  }
}
@media print {
  .shell {
    display: block;
    height: auto;
  }
}
</style>
