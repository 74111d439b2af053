<script setup lang="ts">
import { computed, onScopeDispose, ref, useTemplateRef } from 'vue'

import { useWidth } from '@/composables/useWidth'
import { clockTime } from '@/format/time'
import { useJob } from '@/stores/job'
import { useMe } from '@/stores/me'
import SeverityMark from '@/ui/SeverityMark.vue'
import DayLine from './DayLine.vue'
import HoldingList from './HoldingList.vue'
import PauseList from './PauseList.vue'
import SetUpList from './SetUpList.vue'
import SlipForm from './SlipForm.vue'
import TaskCard from './TaskCard.vue'
import { useDay } from './useDay'

/** The day: the next thing large, what cannot be kept, the line of the day, then all that is to be done. */
const job = useJob()
const mine = useMe()
const { day, next, whole, moved, hasMoved, problem, book, done, later, holds, slip } = useDay()
const { waiting } = book
const mayLog = computed(() => mine.me.access !== 'look')
const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box)
const now = ref(new Date())
const timer = setInterval(() => (now.value = new Date()), 20_000)
onScopeDispose(() => clearInterval(timer))
/** Where the day is planned from now on, that is where the line begins. */
const nowMin = computed(() =>
  day.value && day.value.begins_min > day.value.call_min ? day.value.begins_min : null,
)
const others = computed(() => next.value.slice(1))
const files = computed(() => `/api/jobs/${job.newest?.job}/day`)
const from = computed(() => Math.floor(nowMin.value ?? day.value?.call_min ?? 0))
const isStop = (what: string) => what === 'runs-out' || what === 'overlap' || what === 'clip-limit'
</script>

<template>
  <div class="hand-page">
    <header>
      <h2>Day</h2>
      <p v-if="day" role="status">{{ day.summary }}</p>
      <label v-if="nowMin !== null || whole" class="no-print small"
        ><input v-model="whole" type="checkbox" /> the whole day, from call</label
      >
      <p class="files no-print small">
        <a :href="`${files}/day.pdf`">Sheet (PDF)</a> <a :href="`${files}/day.ics`">Calendar</a>
        <a :href="`${files}/day.csv`">Table (CSV)</a>
      </p>
    </header>
    <p v-if="day?.held" class="is-note">{{ day.held }}</p>
    <p v-if="waiting.length" class="is-caution" role="status">
      {{ waiting.length }} {{ waiting.length === 1 ? 'tap waits' : 'taps wait' }} for the connection.
    </p>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <template v-if="day">
      <div class="parts">
        <div class="left">
          <div class="now">
            <ul v-if="day.unkept.length" class="troubles" aria-label="Problems of the day">
              <li v-for="item in day.unkept" :key="item.what + item.device + item.at_min">
                <SeverityMark :severity="isStop(item.what) ? 'stop' : 'caution'" :size="13" />
                <div>
                  <strong>{{ item.title }}</strong>
                  <p>{{ item.text }}</p>
                </div>
              </li>
            </ul>
            <TaskCard
              v-if="next[0]"
              :task="next[0]"
              :may-log="mayLog"
              @done="done(next[0])"
              @later="later(next[0])"
            />
            <p v-else-if="day.set_ups.length" class="rest">
              <strong>Nothing to do until wrap.</strong> Keep listening.
            </p>
            <p v-else class="rest"><strong>No set-up is planned yet.</strong> Add the first one below.</p>
            <ul v-if="others.length" class="then" aria-label="Then">
              <li v-for="task in others" :key="task.id + task.at">
                <strong>{{ task.who ? `${task.who}: ` : '' }}{{ task.what }}</strong>
                <span class="num">{{ task.by ? `by ${task.by}` : task.at }}</span>
                <p class="small soft">{{ task.why }}</p>
              </li>
            </ul>
          </div>
          <PauseList class="setups" :day="day" />
        </div>
        <SetUpList class="setups" :day="day" />
      </div>
      <div ref="box">
        <DayLine
          v-if="day.takes.length && width"
          :day="day"
          :width="width"
          :now="nowMin"
          :names="width < 600 ? 150 : 190"
        />
      </div>
      <HoldingList v-if="day.holdings.length" :day="day" :may-log="mayLog" @holds="holds" />
      <section v-if="day.tasks.length" class="all" aria-label="All tasks">
        <h3>All tasks</h3>
        <p v-if="moved" class="small" role="status">Planned again: {{ moved }} moved, in bold.</p>
        <table class="plain-table">
          <thead>
            <tr>
              <th scope="col">at</th>
              <th scope="col">by</th>
              <th v-if="day.hands > 1" scope="col">who</th>
              <th scope="col">what</th>
              <th scope="col" class="why">why</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="task in day.tasks" :key="task.id + task.at" :class="{ moved: hasMoved(task) }">
              <td class="num">{{ task.at }}</td>
              <td class="num">{{ task.by }}</td>
              <td v-if="day.hands > 1">{{ task.who }}</td>
              <th scope="row">
                {{ task.what
                }}<span v-if="task.held_min > 0.5" class="is-caution">
                  holds the set {{ Math.ceil(task.held_min) }} min</span
                >
              </th>
              <td class="why">{{ task.why }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <p class="soft small caution">
        Figures of a device's class, not of the cell that is in it: look at each gauge. Never charge a damaged
        lithium battery.
        {{ day.temperature_c < 15 ? 'Batteries give less in the cold; spare ones stay in a pocket.' : '' }}
      </p>
    </template>
    <footer v-if="mine.mayEdit && day?.set_ups.length" class="no-print">
      <SlipForm :disabled="job.readOnly" @slip="(by) => slip(from, by)" />
      <span class="soft small">from {{ clockTime(from) }} on</span>
    </footer>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  gap: 0.9rem;
  margin-left: auto;
}
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 1rem 2.5rem;
}
.troubles {
  display: grid;
  gap: 0.6rem;
  padding-bottom: 0.6rem;
  border-bottom: 1px solid var(--line);
}
.troubles li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.5rem;
  align-items: baseline;
}
.then li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 0.8rem;
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--line);
}
.then p {
  grid-column: 1 / -1;
}
.rest {
  padding: 0.8rem 0;
}
tbody th {
  font-weight: 400;
}
.moved td,
.moved th {
  font-weight: 700;
}
footer {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.8rem;
  align-items: center;
}
.left {
  display: grid;
  gap: 1.4rem;
  align-content: start;
}
@media (width < 700px) {
  .parts,
  .left {
    display: contents;
  }
  .setups {
    order: 1; /* on the day it is planned already: what comes next is wanted, and how long everything lasts */
  }
  .all,
  .caution {
    order: 2;
  }
  footer {
    order: 3;
  }
  .why {
    display: none;
  }
}
</style>
