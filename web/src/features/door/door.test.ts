import { describe, expect, it } from 'vitest'
import { ref } from 'vue'

import type { Ends } from '@/api/client'
import { useLooseFiles } from '@/composables/useLooseFiles'
import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useRigs, withGaps } from './useRigs'
import { useTwoThings } from './useTwoThings'

const GAPS = [
  { id: 'who', lead: 'I record', phrase: 'two people talking', is_open: false, options: [] },
  { id: 'where', lead: 'who are', phrase: 'sitting', is_open: true, options: [] },
]
const answer = (approaches: string[]) => ({
  gaps: GAPS,
  problems: [],
  rows: [],
  rigs: approaches.map((approach) => ({ approach })),
})

describe('useRigs', () => {
  it('shows the first rig soon, then all, and the gaps alone where nothing is asked', async () => {
    const asked = answering(({ path }) => ({
      body: answer(
        path.includes('first=true') ? ['feed'] : path.includes('text=&') ? [] : ['feed', 'straight'],
      ),
    }))
    const question = ref('')
    const { made } = onJob(() => useRigs(question))
    await settle()
    expect([made.answer.value?.rigs.length, made.isWhole.value, asked.length]).toEqual([0, true, 1])
    question.value = 'two people'
    await settle()
    expect(asked.slice(1).map(({ path }) => path.includes('first=true'))).toEqual([true, false])
    expect([made.answer.value?.rigs.length, made.isWhole.value]).toEqual([2, true])
  })

  it('keeps a gap that was filled before the last answer came', async () => {
    answering(() => ({ body: answer([]) }))
    const { made } = onJob(() => useRigs(ref('')))
    await settle()
    expect(made.fill('where', 'walking')).toBe('two people talking, walking')
    expect(made.fill('who', 'music')).toBe('music, walking')
    expect(withGaps(GAPS, {})).toBe('two people talking')
  })

  it('makes a job of a rig, and says what is wrong', async () => {
    answering(({ method }) =>
      method === 'POST' ? { body: { job: 'j2' } } : { status: 422, body: { detail: 'not known here' } },
    )
    const { made } = onJob(() => useRigs(ref('xyzzy')))
    await settle()
    expect(made.problem.value).toBe('not known here')
    expect(await made.take('feed')).toBe('j2')
  })
})

describe('useTwoThings', () => {
  it('asks with every choice, and makes a job of a way', async () => {
    const asked = answering(({ path }) => ({
      body:
        path === '/api/two-things'
          ? { ways: [{ cable: 'XLR' }], outputs: [], inputs: [], problem: '' }
          : path === '/api/equipment'
            ? [{ page: { of: 'device', id: 'my-box', label: 'My box' } }]
            : path === '/api/catalogue'
              ? { classes: [{ id: 'boom', label: 'Boom', kind: 'microphone', group: 'microphone' }] }
              : { job: 'j3' },
    }))
    const ends = ref<Ends | null>(null)
    const { made } = onJob(() => useTwoThings(() => ends.value))
    await settle()
    expect(made.answer.value).toBeNull()
    expect(made.kinds.value.map(([kind]) => kind)).toEqual(['My equipment', 'microphone'])
    ends.value = { sending: 'boom', receiving: 'bag', output: '', input: '', length_m: 3 }
    await settle()
    expect(made.answer.value?.ways).toHaveLength(1)
    expect(await made.take(0)).toBe('j3')
    expect(asked.at(-1)?.body).toMatchObject({ sending: 'boom', number: 0 })
  })
})

describe('useLooseFiles', () => {
  it('opens the place where files lie that belong to no job', async () => {
    answering(() => ({ body: { job: 'loose', revision: 1 } }))
    const { made, job } = onJob(useLooseFiles)
    await settle()
    expect([made.id.value, job.newest?.job]).toEqual(['loose', 'loose'])
  })
})
