<script setup lang="ts">
import Button from 'primevue/button'

import type { Stock } from '@/api/client'
import { useCableTest } from './useCableTest'

/** A cable contact by contact: where the tester beeps. What its class has is framed; what it shows is entered. */
const props = defineProps<{ piece: Stock['pieces'][number]; looked: () => Promise<boolean> }>()
const { test, shown, right, result, problem, toggle, keep, standIn, isRight, isShown } = useCableTest(
  () => props.piece.id,
  props.looked,
)
</script>

<template>
  <div v-if="test" class="test">
    <table :aria-label="`Contacts of ${piece.words}`">
      <thead>
        <tr>
          <td></td>
          <th v-for="far in test.receiving" :key="far" scope="col">{{ far }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="near in test.sending" :key="near">
          <th scope="row">{{ near }}</th>
          <td v-for="far in test.receiving" :key="far" :class="{ right: isRight(near, far) }">
            <input
              type="checkbox"
              :aria-label="`${near} reaches ${far}`"
              :checked="isShown(near, far)"
              @change="toggle(near, far)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <div class="acts">
      <p class="small soft">
        Rows: the end that goes to the sender. Tick where the tester beeps; framed is where it should.
      </p>
      <Button size="small" @click="keep(shown)">Save test result</Button>
      <Button size="small" outlined @click="keep(right)">All contacts OK</Button>
      <Button size="small" text @click="standIn">Simulate a tester</Button>
      <p v-if="result !== null" role="status" :class="{ 'is-stop': result }">
        {{ result ? `${result}. It is kept out of every run.` : 'Right. It counts as tested.' }}
      </p>
      <p v-if="problem" class="is-stop" role="alert">{{ problem }}</p>
    </div>
  </div>
</template>

<style scoped>
.test {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem 2rem;
  padding: 0.4rem 0 0.8rem;
}
.test th,
.test td {
  padding: 0.3rem 0.6rem;
  text-align: center;
}
.right {
  outline: 2px solid var(--accent);
  outline-offset: -3px;
}
.acts {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
  max-width: 30rem;
}
</style>
