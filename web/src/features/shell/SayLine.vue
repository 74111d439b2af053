<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'

import { api, wordsOf, type Answer, type Proposal } from '@/api/client'
import { useJob } from '@/stores/job'

/** The sentence line: typed words are answered with what they would do; Enter does it, Tab goes on with a word. */
const job = useJob()
const text = ref('')
const answer = ref<Answer | null>(null)
const chosen = ref(0)
const open = ref(false)
const field = useTemplateRef<HTMLInputElement>('field')
/** Lines that were taken and are not done yet, and those that could not be done. The next one can be typed meanwhile. */
const underWay = ref<readonly string[]>([])
const undone = ref<readonly { text: string; why: string }[]>([])
let last: Promise<unknown> = Promise.resolve()
let asked = 0
let visits = 0 // how often somebody came into the field
let timer: ReturnType<typeof setTimeout> | undefined

/** What was left there is marked: typing replaces it, an arrow goes on with it. */
const focus = () => {
  field.value?.focus()
  field.value?.select()
}
defineExpose({ focus })

const choices = computed(() => answer.value?.proposals ?? [])

async function ask() {
  const id = job.newest?.job
  if (!id) return
  const turn = ++asked
  try {
    const found = await api.say(id, text.value, () => turn === asked)
    if (turn !== asked) return
    answer.value = found
    chosen.value = 0
  } catch (error) {
    if (turn === asked) answer.value = { proposals: [], completions: [], problem: String(error) }
  }
}

watch(text, (typed) => {
  if (typed.startsWith('/')) {
    text.value = typed.slice(1) // the key that comes here, pressed once more
    return
  }
  clearTimeout(timer)
  asked++ // an answer to the earlier text that is still on its way is no answer any more
  answer.value = null
  timer = setTimeout(() => void ask(), 120)
})

// What was typed is answered anew when the job is there, and when it has moved on.
watch(
  () => [job.newest?.job, job.newest?.revision],
  ([there]) => {
    if (there && open.value && !underWay.value.length) void ask()
  },
)

/**
 * The line as it stands is taken, and the field is free for the next one. `proposal`: what was chosen of its answers;
 * `stays`: in the field, to type the next line. Else it is left when the line is done and nothing more was typed, so that
 * the keys work again.
 */
function take(proposal: Proposal | undefined, stays: boolean) {
  const line = text.value
  if (!line.trim() || job.readOnly) return
  if (answer.value && !proposal) return // it says what is wrong with the line
  clearTimeout(timer)
  const seen = underWay.value.length ? null : proposal // what was answered before another line was done may be different now
  underWay.value = [...underWay.value, line]
  text.value = ''
  answer.value = null
  const visit = stays ? -1 : visits
  last = last.then(() => carryOut(line, seen ?? null, visit))
}

async function carryOut(line: string, seen: Proposal | null, visit: number) {
  const why = await done(line, seen)
  underWay.value = underWay.value.slice(1)
  if (why === null) {
    if (underWay.value.length) return
    if (text.value || visit !== visits) void ask()
    else field.value?.blur()
  } else if (text.value === '' && !underWay.value.length) {
    text.value = line // back where it can be put right
  } else {
    undone.value = [...undone.value, { text: line, why }]
  }
}

/** Null where it was done; else why it was not, which may be told elsewhere already. */
async function done(line: string, seen: Proposal | null): Promise<string | null> {
  const id = job.newest?.job
  if (!id) return 'the job was not there'
  try {
    const found = seen ? null : await api.say(id, line)
    const proposal = seen ?? found?.proposals[0]
    if (!proposal) return found?.problem || 'nothing is known that it could mean'
    const kept = job.refused.length
    if (await job.edit(proposal.edits)) return null
    return job.refused.length > kept ? null : job.problem // what a newer state kept out is offered again already
  } catch (error) {
    return wordsOf(error)
  }
}

function takeBack(at: number) {
  text.value = undone.value[at]?.text ?? ''
  undone.value = undone.value.filter((_, index) => index !== at)
  field.value?.focus()
}

function complete(event: KeyboardEvent) {
  const next = answer.value?.completions[0]
  if (!next || next === text.value) return
  event.preventDefault()
  text.value = next
}

function move(by: number) {
  const count = choices.value.length
  if (count) chosen.value = (chosen.value + by + count) % count
}

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
      @focus="visits += 1"
      @keydown.enter.prevent="take(choices[chosen], $event.shiftKey)"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.tab.exact="complete"
      @keydown.escape="field?.blur()"
    />
    <ul v-if="underWay.length > 1 || undone.length" class="lines small" aria-live="polite">
      <li v-for="(line, index) in underWay.slice(1)" :key="`waits-${index}`" class="soft">
        next: {{ line }}
      </li>
      <li v-for="(line, index) in undone" :key="`undone-${index}`" class="problem">
        not done: <strong>{{ line.text }}</strong> ({{ line.why }})
        <button type="button" class="completion" @click="takeBack(index)">put it back</button>
        <button type="button" class="completion" @click="undone = undone.filter((_, at) => at !== index)">
          drop it
        </button>
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
          <button type="button" class="completion" @click="((text = line), field?.focus())">
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
