<script setup lang="ts">
import Button from 'primevue/button'
import { useRouter } from 'vue-router'

import type { EarSession } from '@/api/client'
import { formatMoment } from '@/format/time'
import EarPair from './EarPair.vue'
import { useEar } from './useEar'

/** Which of two has more: the difference that is just heard, and how it gets smaller over time. */
const props = defineProps<{ session?: string }>()
const router = useRouter()
const { tasks, session, problem, isBusy, begin, answer } = useEar(() => props.session ?? '')
async function start(task: EarSession['task']) {
  const id = await begin(task)
  if (id) await router.push({ name: 'ear', params: { session: id } })
}
</script>

<template>
  <main class="hand-page">
    <p>
      <RouterLink :to="props.session ? '/ear' : '/drill'">{{
        props.session ? 'Ear training' : 'Drill'
      }}</RouterLink>
    </p>
    <h1>{{ session?.label ?? 'Ear training' }}</h1>
    <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    <EarPair
      v-if="session"
      :session="session"
      :is-busy="isBusy"
      @answer="answer"
      @again="start(session.task)"
    />
    <template v-else-if="!props.session">
      <p>
        Two sounds, one of them has more. Two right answers make it harder, a wrong one easier, until the
        smallest difference is found that you hear. Set headphones low before you begin.
      </p>
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">listen for</th>
            <th scope="col">threshold, dB</th>
            <th scope="col"><span class="visually-hidden">begin</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in tasks" :key="one.task">
            <th scope="row">{{ one.label }}</th>
            <td>
              <span v-if="!one.found.length" class="soft">not yet</span>
              <span v-for="(found, number) in one.found.slice(-6)" :key="number"
                ><template v-if="number"> → </template
                ><strong class="num" :title="`${found.who} ${formatMoment(found.begun)}`">{{
                  found.threshold_db
                }}</strong></span
              >
            </td>
            <td>
              <Button
                size="small"
                outlined
                :disabled="isBusy"
                :aria-label="`Begin: ${one.label}`"
                @click="start(one.task)"
                >Begin</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </main>
</template>
