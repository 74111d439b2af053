import { describe, expect, it } from 'vitest'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useFaultSearch } from './useFaultSearch'

describe('useFaultSearch', () => {
  it('asks anew with each answer, goes back one, and forgets them with another symptom', async () => {
    const asked = answering(({ body }) => ({
      body: {
        next: {
          id: `test-${(body as { answers: unknown[] }).answers.length}`,
          does: 'Listen.',
          asks: 'Is it there?',
        },
      },
    }))
    const { made } = onJob(useFaultSearch)
    await settle()
    expect(asked).toHaveLength(0)
    made.symptom.value = 'hum'
    await settle()
    made.answer(true)
    await settle()
    made.answer(null)
    await settle()
    expect((asked.at(-1)?.body as { answers: unknown }).answers).toEqual([
      { test: 'test-0', yes: true },
      { test: 'test-1', yes: null },
    ])
    made.back()
    await settle()
    expect(made.given.value).toHaveLength(1)
    made.symptom.value = 'hiss'
    await settle()
    expect([made.given.value.length, (asked.at(-1)?.body as { symptom: string }).symptom]).toEqual([
      0,
      'hiss',
    ])
  })
})
