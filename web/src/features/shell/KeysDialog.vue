<script setup lang="ts">
import Dialog from 'primevue/dialog'

import { KEYS } from './stations'
import { useGrammar } from './useGrammar'

/** All keys, and every form of a typed line. */
const visible = defineModel<boolean>('visible', { required: true })
const grammar = useGrammar(visible)
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Help and shortcuts" dismissable-mask style="width: 60rem">
    <div class="help">
      <dl>
        <template v-for="[key, words] in KEYS" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ words }}</dd>
        </template>
      </dl>
      <section v-if="grammar" aria-label="Commands">
        <h3>Commands, after <kbd>/</kbd></h3>
        <table class="plain-table">
          <tbody>
            <tr v-for="form in grammar.forms" :key="form.pattern">
              <th scope="row">
                {{ form.example }}
                <span class="soft small">{{ form.pattern }}</span>
              </th>
              <td>{{ form.does }}</td>
            </tr>
          </tbody>
        </table>
        <p class="soft small">
          Beginnings of words are enough. Capitals stand for what you say; length, level, cable and port may
          be left out. {{ grammar.passable.charAt(0).toUpperCase() + grammar.passable.slice(1) }}.
        </p>
      </section>
    </div>
  </Dialog>
</template>

<style scoped>
.help {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 2rem;
}
dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0.4rem 1rem;
  align-content: start;
}
h3 {
  margin-bottom: 0.4rem;
  font-size: 1rem;
}
th span {
  display: block;
  font-weight: 400;
}
@media (width < 900px) {
  .help {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
