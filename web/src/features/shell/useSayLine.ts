import { computed, ref, watch, type Ref } from 'vue'

import { api, wordsOf, type Answer, type Proposal } from '@/api/client'
import { useJob } from '@/stores/job'

const PAUSE_MS = 120 // after a key, before what is typed is asked about

/**
 * What is typed, answered with what it would do, and lines that are carried out one after the other.
 *
 * isOpen: whether somebody looks at the answers. leave, enter: what is to be done with the field when a line is done, and
 * when one comes back.
 */
export function useSayLine(isOpen: Readonly<Ref<boolean>>, leave: () => void, enter: () => void) {
  const job = useJob()
  const text = ref('')
  const answer = ref<Answer | null>(null)
  const chosen = ref(0)
  /** Lines that were taken and are not done yet, and those that could not be done. The next one can be typed meanwhile. */
  const underWay = ref<readonly string[]>([])
  const undone = ref<readonly { text: string; why: string }[]>([])
  const choices = computed(() => answer.value?.proposals ?? [])
  let last: Promise<unknown> = Promise.resolve()
  let asked = 0
  let visits = 0 // how often somebody came into the field
  let timer: ReturnType<typeof setTimeout> | undefined

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
      if (turn === asked) answer.value = { proposals: [], completions: [], problem: wordsOf(error) }
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
    timer = setTimeout(() => void ask(), PAUSE_MS)
  })

  // What was typed is answered anew when the job is there, and when it has moved on.
  watch(
    () => [job.newest?.job, job.newest?.revision],
    ([there]) => {
      if (there && isOpen.value && !underWay.value.length) void ask()
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
      else leave()
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

  /** A line that could not be done, back into the field. */
  function takeBack(at: number) {
    text.value = undone.value[at]?.text ?? ''
    dropUndone(at)
    enter()
  }
  const dropUndone = (at: number) => (undone.value = undone.value.filter((_, index) => index !== at))

  /** The first completion, where there is one that says more; whether there was. */
  function complete(): boolean {
    const next = answer.value?.completions[0]
    if (!next || next === text.value) return false
    text.value = next
    return true
  }

  function move(by: number) {
    const count = choices.value.length
    if (count) chosen.value = (chosen.value + by + count) % count
  }

  const visited = () => (visits += 1)
  return {
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
  }
}
