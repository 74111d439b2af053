<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'

import { useJob } from '@/stores/job'
import { useMe } from '@/stores/me'
import CopyForm from './CopyForm.vue'
import FileFindings from './FileFindings.vue'
import TaskBar from './TaskBar.vue'
import TogetherPlayer from './TogetherPlayer.vue'
import { useDayFiles } from './useDayFiles'

/** The files of the day: a folder is read, held against the log, and copied; in the order in which that is done. */
const job = useJob()
const mine = useMe()
const { seen, problem, isBusy, isOn, read, copy, play, mend, cancel } = useDayFiles()
const folder = ref('')
const listens = ref(true)
const faults = ref(5)
const found = computed(() => seen.value?.found)
const played = computed(() => seen.value?.played)
const task = computed(() => seen.value?.read)
watch(
  () => task.value?.folder,
  (now) => (folder.value = now || folder.value),
)
const edit = computed(() => `/api/jobs/${job.newest?.job}/files/for-the-edit`)
const pairs = computed(
  () =>
    new Map(
      found.value?.takes.flatMap(({ take, together }) =>
        (together ?? []).map((pair) => [pair.picture, { take, pair }]),
      ),
    ),
)
const heard = ref('')
const name = (path: string) => path.slice(path.lastIndexOf('/') + 1)
const seed = ref(Math.floor(Math.random() * 1000))
</script>

<template>
  <div class="page of-files">
    <header>
      <h2>Files of the day</h2>
      <p v-if="found" role="status">{{ found.summary }}</p>
      <RouterLink :to="{ name: 'log' }">Back to the log</RouterLink>
    </header>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <p v-if="!mine.isOwner" class="is-note">
      Folders are read on the machine that the program runs on: open this page there.
    </p>
    <section class="read" aria-label="Read the cards">
      <form class="line no-print" @submit.prevent="read(folder, listens)">
        <label class="field grows"
          ><span>Folder with the cards, one folder for each device</span
          ><input v-model="folder" class="plain-input" placeholder="/media/cards/today" maxlength="1000"
        /></label>
        <label class="tick"><input v-model="listens" type="checkbox" /> listen to every file</label>
        <Button type="submit" :disabled="!folder.trim() || isBusy" label="Read" />
      </form>
      <p class="small soft">
        Originals are only read. Listening looks for clipping, silence, tracks that changed places, levels far
        from the plan, and for timecode and drift against the recorder; without it, only what the files say of
        themselves.
      </p>
      <TaskBar v-if="task && isOn(task)" :task="task" what="Files are being read" @cancel="cancel(task)" />
      <p v-else-if="task?.state === 'failed'" class="is-stop" role="alert">{{ task.message }}</p>
      <TaskBar
        v-if="played && isOn(played.task)"
        :task="played.task"
        what="Simulated devices write their files"
        @cancel="cancel(played.task)"
      />
      <p v-else-if="played?.task.state === 'failed'" class="is-stop" role="alert">
        {{ played.task.message }}
      </p>
      <details v-if="!isBusy" class="no-print small">
        <summary>No card at hand? Let simulated devices write the files of this log</summary>
        <form class="line" @submit.prevent="play(seed, faults)">
          <label class="field"
            ><span>Files with a fault</span
            ><input v-model.number="faults" class="plain-input" type="number" min="0" max="50"
          /></label>
          <label class="field"
            ><span>Number of the draw: the same one gives the same faults</span
            ><input v-model.number="seed" class="plain-input" type="number" min="0" max="1000000000"
          /></label>
          <Button type="submit" outlined size="small" label="Write and read them" />
        </form>
        <template v-if="played?.task.state === 'done'">
          <p>{{ played.files }} files in {{ played.task.folder }}. What went wrong in them:</p>
          <ul>
            <li v-for="fault in played.faults" :key="fault.text">{{ fault.text }}</li>
          </ul>
        </template>
      </details>
    </section>
    <template v-if="found && !isOn(task)">
      <FileFindings :found="found" :may-mend="!job.readOnly" @mend="mend" />
      <section v-if="found.takes.length" aria-label="Takes and their files" class="scrolls">
        <table class="plain-table">
          <thead>
            <tr>
              <th scope="col">take</th>
              <th scope="col" class="num">length</th>
              <th v-for="source in found.sources" :key="source" scope="col">
                {{ source || 'not in a folder' }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="take in found.takes" :key="take.take">
              <th scope="row">{{ take.take }}</th>
              <td class="num">{{ take.length }}</td>
              <td
                v-for="(files, number) in take.by_source"
                :key="found.sources[number]"
                :class="{ none: !files.length }"
              >
                <span v-for="path in files" :key="path"
                  >{{ name(path) }}
                  <Button
                    v-if="pairs.has(path)"
                    class="no-print"
                    size="small"
                    text
                    :aria-label="`Hear both: ${name(path)} and the recorder`"
                    :aria-pressed="heard === path"
                    @click="heard = heard === path ? '' : path"
                    >Hear both</Button
                  >
                </span>
                <template v-if="!files.length">no file</template>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <TogetherPlayer v-if="pairs.get(heard)" :job="job.newest?.job ?? ''" v-bind="pairs.get(heard)!" />
      <p v-if="found.takes.length" class="no-print">
        For the edit, clip by clip: <a :href="`${edit}.pdf`">PDF</a>,
        <a :href="`${edit}.pdf?paper=letter`">Letter</a>, <a :href="`${edit}.csv`">CSV</a>. Who is on which
        track, what to mute, whether picture and sound agree.
      </p>
      <CopyForm
        v-if="found.files.length"
        :copies="seen?.copies ?? null"
        :is-busy="isBusy"
        @copy="copy"
        @cancel="seen?.copies && cancel(seen.copies.task)"
      />
    </template>
    <p v-else-if="!task && !isBusy" class="soft">
      Nothing has been read yet. Copy the cards first, or read them where they are: each device in a folder of
      its own, as <em>Bag recorder</em> and <em>Camera A</em>, so that the plan knows whose files they are.
    </p>
  </div>
</template>

<style scoped>
.of-files {
  display: grid;
  gap: 1rem;
  padding: 1rem 1.25rem;
  align-content: start;
}
header,
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: end;
}
header {
  align-items: baseline;
}
h2 {
  font-size: 1.2rem;
}
.read {
  display: grid;
  gap: 0.5rem;
}
.grows {
  flex: 1 1 20rem;
}
.tick {
  min-height: 2.3rem;
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
details form {
  margin: 0.5rem 0;
}
section .num {
  padding-right: 1.2rem;
}
.none {
  font-weight: 700;
  color: var(--stop);
}
</style>
