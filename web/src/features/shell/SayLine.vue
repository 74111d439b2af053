<script setup lang="ts">
import { ref, useTemplateRef } from 'vue'

import { useJob } from '@/stores/job'
import { useSayLine } from './useSayLine'

/** The sentence line: typed words are answered with what they would do; Enter does it, Tab goes on with a word. */
const job = useJob()
const open = ref(false)
const field = useTemplateRef<HTMLInputElement>('field')
const enter = () => field.value?.focus()
const {
  text,
  answer,
  chosen,
  choices,
  underWay,
  undone,
  ask,
  take,
  takeBack,
  dropUndone,
  complete,
  move,
  visited,
} = useSayLine(open, () => field.value?.blur(), enter)

/** What was left there is marked: typing replaces it, an arrow goes on with it. */
const focus = () => {
  enter()
  field.value?.select()
}
defineExpose({ focus })

const goOn = (event: KeyboardEvent) => complete() && event.preventDefault()

function leave(event: FocusEvent) {
  if (!(event.relatedTarget instanceof Node && event.currentTarget instanceof Node)) open.value = false
  else if (!event.currentTarget.contains(event.relatedTarget)) open.value = false
}
</script>

<template>
  <div class="say" @focusin="((open = true), answer ?? ask())" @focusout="leave">
    <input
      ref="field"
      v-model="text"
      class="plain-input"
      type="text"
      role="combobox"
      aria-label="Command"
      aria-autocomplete="list"
      aria-controls="say-answer"
      :aria-expanded="open"
      :aria-activedescendant="choices.length ? `say-${chosen}` : undefined"
      placeholder="/  type a connection: boom to bag 1, 7 m"
      autocomplete="off"
      spellcheck="false"
      maxlength="200"
      :disabled="job.readOnly"
      @focus="visited"
      @keydown.enter.prevent="take(choices[chosen], $event.shiftKey)"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.tab.exact="goOn"
      @keydown.escape="field?.blur()"
    />
    <ul v-if="underWay.length > 1 || undone.length" class="lines small" aria-live="polite">
      <li v-for="(line, index) in underWay.slice(1)" :key="`waits-${index}`" class="soft">
        next: {{ line }}
      </li>
      <li v-for="(line, index) in undone" :key="`undone-${index}`" class="problem">
        not done: <strong>{{ line.text }}</strong> ({{ line.why }})
        <button type="button" class="completion" @click="takeBack(index)">edit again</button>
        <button type="button" class="completion" @click="dropUndone(index)">discard</button>
      </li>
    </ul>
    <div v-if="open && answer" id="say-answer" class="answer" role="listbox" aria-label="Result">
      <p v-if="answer.problem" class="problem">{{ answer.problem }}</p>
      <button
        v-for="(proposal, index) in choices"
        :id="`say-${index}`"
        :key="index"
        type="button"
        role="option"
        :aria-selected="index === chosen"
        :class="{ chosen: index === chosen }"
        @click="take(proposal, $event.shiftKey)"
        @mouseenter="chosen = index"
      >
        <strong>{{ proposal.title }}</strong>
        <span v-if="proposal.outcome" class="outcome">{{ proposal.outcome }}</span>
        <span v-for="step in proposal.steps" :key="step" class="step">{{ step }}</span>
      </button>
      <p v-if="answer.completions.length" class="soft small more">
        <template v-for="(line, index) in answer.completions" :key="line">
          <button type="button" class="completion" @click="((text = line), enter())">
            {{ line }}
          </button>
          <kbd v-if="index === 0">Tab</kbd>
        </template>
      </p>
      <p v-if="!choices.length && !answer.problem" class="soft small hint">
        add bag recorder · founder at boom, 0.5 m, raised · boom to bag 1, 7 m · path cable 1: 4 m past
        walkway · set bag 1 gain 40 · remove cable 4 · <kbd>?</kbd> shows every form
      </p>
    </div>
  </div>
</template>

<style scoped>
.say {
  position: relative;
  flex: 1;
  min-width: 12rem;
}
input {
  min-height: 2.4rem;
}
.answer {
  position: absolute;
  z-index: 20;
  inset: calc(100% + 2px) 0 auto;
  min-width: 24rem;
  max-height: 70vh;
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  border-radius: var(--radius);
}
.answer > button {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0.1rem 1rem;
  width: 100%;
  padding: 0.6rem 0.8rem;
  text-align: left;
  background: none;
  border: 0;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}
.answer > button.chosen {
  background: var(--chalk);
  border-left-color: var(--pin);
}
.outcome {
  font-weight: 600;
}
.step {
  grid-column: 1 / -1;
  font-size: 0.9rem;
  color: var(--ink-soft);
}
@media (width < 700px) {
  .answer {
    position: fixed;
    inset: auto 0.5rem auto;
    min-width: 0;
    max-height: 55vh;
  }
  .answer > button {
    grid-template-columns: 1fr;
  }
}
.problem,
.hint,
.more {
  padding: 0.6rem 0.8rem;
}
.completion {
  padding: 0.1rem 0.3rem;
  text-decoration: underline;
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
