<script setup lang="ts">
import { computed, ref } from 'vue'

import { isCut } from '@/api/connection'
import { useKeys } from '@/composables/useKeys'
import { counted, span } from '@/format/time'
import { useJob } from '@/stores/job'
import { useMe } from '@/stores/me'
import SeverityMark from '@/ui/SeverityMark.vue'
import ClockForm from './ClockForm.vue'
import PhotoForm from './PhotoForm.vue'
import SceneNotes from './SceneNotes.vue'
import TakeForm from './TakeForm.vue'
import TakeRow from './TakeRow.vue'
import { usePhotos } from './usePhotos'
import { useSceneNotes } from './useSceneNotes'
import { useTakes } from './useTakes'

/** The log, in the hand: what rolls large, what happened for a tap each, the takes below, the next one under the thumb. */
const job = useJob()
const mine = useMe()
const { log, waiting, problem, running, takes, last, elapsed, ...act } = useTakes()
const mayLog = computed(() => mine.me.access !== 'look')
const opened = ref('')
const own = ref('')
const slate = ref('')
const notes = useSceneNotes(log, () => (running.value ?? log.value?.next)?.slate ?? '')
const album = usePhotos(
  () => job.newest?.job ?? '',
  () => log.value?.photos ?? [],
  act.look,
)
const about = computed(() => running.value ?? last.value)
const files = computed(() => `/api/jobs/${job.newest?.job}/log/report`)
const marked = computed(() => {
  const found = new Map<string, number>()
  for (const note of about.value?.notes ?? []) found.set(note.text, (found.get(note.text) ?? 0) + 1)
  return found
})
const since = computed(() => {
  const told = log.value?.since
  const one = (minutes: number | null | undefined, what: string) =>
    minutes === null || minutes === undefined ? `no ${what} yet` : `${span(minutes)} since ${what}`
  return [one(told?.room_tone_min, 'room tone'), one(told?.line_up_min, 'line-up'), one(told?.jam_min, 'jam')]
})

function sayOwn() {
  act.note(about.value, own.value)
  own.value = ''
}
function rollOther() {
  act.roll(slate.value)
  slate.value = ''
}
useKeys({
  r: () => mayLog.value && act.roll(),
  c: () => mayLog.value && act.cut(),
  n: () => document.getElementById('own-note')?.focus(),
})
</script>

<template>
  <div v-if="log" class="hand-page">
    <header>
      <h2>Log</h2>
      <p role="status">{{ log.summary }}</p>
      <p class="files no-print small">
        Sound report: <a :href="`${files}.pdf`">PDF</a> <a :href="`${files}.pdf?paper=letter`">Letter</a>
        <a :href="`${files}.csv`">CSV</a> <a :href="`${files}.txt`">text</a>
        <a :href="`${files}.json`">JSON</a>
        · circled takes: <a :href="`${files}.edl`">EDL</a> <a :href="`${files}.otio`">OTIO</a> ·
        <a :href="`${files}.zip`">all of it (ZIP)</a> ·
        <RouterLink :to="{ name: 'files' }">Files of the day</RouterLink>
      </p>
    </header>
    <p v-if="isCut || waiting.length" class="is-caution" role="status">
      <template v-if="isCut">No connection. </template>{{ waiting.length }}
      {{ waiting.length === 1 ? 'tap waits' : 'taps wait' }} here and will be delivered.
    </p>
    <p v-if="problem && !isCut" class="is-stop" role="alert">{{ problem }}</p>
    <section class="take" :aria-label="running ? 'The take that rolls' : 'The next take'">
      <div class="head">
        <div>
          <p class="soft">{{ running ? 'Rolling' : 'Next' }}</p>
          <h3>
            {{
              running
                ? `${running.slate}, take ${running.number}`
                : `${log.next.slate}, take ${log.next.number}`
            }}
          </h3>
        </div>
        <p v-if="running" class="elapsed num" role="timer">{{ counted(elapsed) }}</p>
      </div>
      <p v-if="running" class="small soft">
        since {{ running.timecode || running.begins.slice(11, 19)
        }}<template v-if="running.revision"> · revision {{ running.revision }} of the plan</template>
      </p>
      <div v-if="mayLog" class="buttons no-print">
        <template v-if="running">
          <button type="button" data-repeats class="tap main" @click="act.cut()">Cut</button>
          <button class="tap" type="button" data-repeats @click="act.cut('false-start')">False start</button>
        </template>
        <template v-else>
          <button type="button" data-repeats class="tap main" @click="act.roll()">
            Roll {{ log.next.label }}
          </button>
          <button class="tap" type="button" data-repeats @click="act.nextSetUp()">
            Roll {{ log.next_set_up.label }}
          </button>
        </template>
      </div>
      <form v-if="mayLog && !running" class="other no-print" @submit.prevent="rollOther">
        <label
          ><span class="visually-hidden">Another slate</span
          ><input v-model="slate" class="plain-input" maxlength="24" placeholder="another slate"
        /></label>
        <button class="tap" type="submit" :disabled="!slate.trim()">Roll it</button>
      </form>
    </section>
    <SceneNotes v-if="notes" :notes="notes" :waiting="waiting" :may-log="mayLog" @tap="act.tap" />
    <section v-if="mayLog && about" class="notes no-print" aria-label="What happened?">
      <h3>
        What happened<template v-if="!running"> in {{ about.label }}</template
        >?
      </h3>
      <div class="grid">
        <button
          v-for="word in log.words"
          :key="word"
          class="tap"
          type="button"
          data-repeats
          :class="{ marked: marked.has(word) }"
          @click="act.note(about, word)"
        >
          {{ word }}<template v-if="(marked.get(word) ?? 0) > 1"> {{ marked.get(word) }}</template>
        </button>
      </div>
      <form @submit.prevent="sayOwn">
        <label
          ><span class="visually-hidden">A note of your own</span
          ><input
            id="own-note"
            v-model="own"
            class="plain-input"
            maxlength="2000"
            placeholder="something else"
        /></label>
        <button class="tap" type="submit" :disabled="!own.trim()">Note</button>
      </form>
    </section>
    <PhotoForm :album="album" :about="about" :devices="log.devices ?? []" :may-log="mayLog" />
    <ClockForm v-if="mayLog" :log="log" :job="job.newest?.job ?? ''" @tap="act.tap" />
    <ul v-if="log.findings.length" class="findings" aria-label="To be cleared">
      <li v-for="item in log.findings" :key="item.what + item.take">
        <SeverityMark severity="caution" :size="12" />
        <p>
          <strong>{{ item.title }}.</strong> {{ item.text }}
        </p>
      </li>
    </ul>
    <ul v-if="takes.length" class="list" aria-label="Takes">
      <TakeRow
        v-for="take in takes"
        :key="take.id"
        :take="take"
        :is-open="opened === take.id"
        @toggle="opened = opened === take.id ? '' : take.id"
      >
        <TakeForm
          :take="take"
          :tracks="log.tracks"
          :devices="log.devices ?? []"
          :job="job.newest?.job ?? ''"
          :album="album"
          :playback="notes?.playback_ready ? (notes.playback[0] ?? '') : ''"
          :may-log="mayLog"
          @status="act.status(take, $event)"
          @note="(text, track) => act.note(take, text, track)"
          @fault="(text, device) => act.fault(take, text, device)"
          @correct="act.correct(take, $event)"
          @strike="act.strike(take)"
        />
      </TakeRow>
    </ul>
    <p v-else class="soft">
      Nothing is logged yet. Roll and Cut are one button; r and c on a keyboard. Telephones of the crew log
      along.
    </p>
    <p class="soft small">{{ since.join(' · ') }}</p>
    <footer v-if="mayLog" class="no-print" aria-label="The last take">
      <button
        class="tap"
        type="button"
        data-repeats
        :disabled="!about"
        :aria-pressed="about?.status === 'circled'"
        @click="about && act.status(about, 'circled')"
      >
        {{ about?.status === 'circled' ? 'Circled' : 'Circle' }}{{ about ? ` ${about.label}` : '' }}
      </button>
      <button v-if="running" type="button" data-repeats class="tap main" @click="act.cut()">Cut</button>
      <button v-else type="button" data-repeats class="tap main" @click="act.roll()">
        Roll {{ log.next.label }}
      </button>
      <button type="button" data-repeats class="tap tone" @click="act.did('room-tone')">
        Room tone done
      </button>
    </footer>
  </div>
  <div v-else-if="problem" class="alone">
    <p class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="waiting.length" class="is-caution" role="status">
      {{ waiting.length }} {{ waiting.length === 1 ? 'tap waits' : 'taps wait' }} here and will be delivered.
    </p>
  </div>
</template>

<style scoped>
.hand-page {
  max-width: 52rem;
}
.buttons .tap,
.grid .tap,
footer .tap:not(.tone) {
  min-height: 3.1rem;
}
.alone {
  padding: 1rem;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 0.7rem;
  margin-left: auto;
}
.take {
  display: grid;
  gap: 0.5rem;
  padding-bottom: 0.9rem;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: end;
}
.take h3 {
  font-size: 1.6rem;
  line-height: 1.2;
}
.elapsed {
  font-size: 1.5rem;
  font-weight: 700;
}
.buttons,
footer {
  display: grid;
  grid-template-columns: 2fr 1fr;
  gap: 0.6rem;
}
.notes,
.findings {
  display: grid;
  gap: 0.6rem;
}
.grid {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.5rem;
}
.grid .marked {
  font-weight: 700;
  border: 2px solid var(--caution);
}
.other,
.notes form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.5rem;
}
.other input,
.notes form input {
  min-height: 2.75rem;
}
.findings li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.5rem;
  align-items: baseline;
}
footer {
  grid-template-columns: 1fr 2fr 1fr;
}
footer button[aria-pressed='true'] {
  font-weight: 700;
}
@media (width < 700px) {
  .grid {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .files {
    display: none;
  }
  footer {
    grid-template-columns: 3fr 4fr;
  }
  footer .tone {
    grid-column: 1 / -1;
  }
}
</style>
