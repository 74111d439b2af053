import { describe, expect, it } from 'vitest'
import { ref } from 'vue'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useDrill } from './useDrill'
import { useEar } from './useEar'

const DRILL = {
  id: 'd1',
  probes: [
    { id: 'a', group: 'Bag' },
    { id: 'b', group: 'Camera' },
    { id: 'c', group: 'Bag' },
  ],
  seen: [],
  wrong: [],
  judged: null,
}

describe('useDrill', () => {
  it('draws one, looks with what was done before, and answers', async () => {
    const asked = answering(({ path, method }) => ({
      body: path.endsWith('/examples')
        ? [{ id: 'choir', title: 'Choir' }]
        : path.endsWith('/ladders')
          ? { planned: {}, faulty: {}, at: [2] }
          : path.endsWith('/drills') && method === 'GET'
            ? { played: [], side_by_side: [], kinds: [] }
            : path.endsWith('/answer')
              ? { ...DRILL, judged: { score: 0 } }
              : DRILL,
    }))
    const id = ref('')
    const { made } = onJob(() => useDrill(() => id.value))
    await settle()
    expect(made.examples.value.map(({ title }) => title)).toEqual(['Choir'])
    expect(await made.begin(7, { job: 'j1', level: 'unit', kind: '', example: '', most: 1 })).toBe('d1')
    expect(asked.at(-1)?.body).toMatchObject({ seed: 7, job: 'j1' })
    id.value = 'd1'
    await settle()
    expect(made.groups.value.map(([name, probes]) => [name, probes.length])).toEqual([
      ['Bag', 2],
      ['Camera', 1],
    ])
    await made.look('a')
    expect(asked.at(-1)?.body).toEqual({ probe: 'a', number: 0 })
    await made.answer('', true)
    expect(asked.at(-1)?.body).toEqual({ answer: '', number: 0, gives_up: true })
    await settle()
    expect(made.ladders.value?.at, 'what it did is told once it is over').toEqual([2])
  })

  it('says what is wrong, and begins nothing', async () => {
    answering(({ method }) =>
      method === 'POST'
        ? { status: 422, body: { detail: 'too little in this job' } }
        : { body: { played: [], kinds: [] } },
    )
    const { made } = onJob(() => useDrill(() => ''))
    await settle()
    expect(await made.begin(null, { level: 'unit', kind: '', example: '', most: 1 })).toBeNull()
    expect(made.problem.value).toBe('too little in this job')
  })
})

describe('useEar', () => {
  it('begins a session, answers with its number, and stops when it is over', async () => {
    const under = { id: 's1', trial: 4, threshold_db: null }
    const asked = answering(({ path, method }) => ({
      body:
        method === 'GET' && path.endsWith('/ear')
          ? []
          : path.endsWith('/answer')
            ? { ...under, trial: 5, threshold_db: 3.5 }
            : under,
    }))
    const id = ref('')
    const { made } = onJob(() => useEar(() => id.value))
    await settle()
    expect(await made.begin('hum')).toBe('s1')
    id.value = 's1'
    await settle()
    await made.answer(1)
    expect(asked.at(-1)?.body).toEqual({ which: 1, number: 4 })
    const count = asked.length
    await made.answer(0)
    expect(asked.length).toBe(count)
  })
})
