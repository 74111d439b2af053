import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'

import type { JobState } from '@/api/client'
import { answering } from '@/testing/server'
import { useAdvice } from './advice'
import { useJob } from './job'

const state = (revision: number) => ({ job: 'j', revision, findings: [] }) as unknown as JobState
const fix = (label: string) => ({ label, steps: [label], edits: [] })

/** A server that advises on these revisions in order, and counts how often it was asked. */
function advise(...revisions: number[]) {
  return answering(() => {
    const revision = revisions.shift() ?? 0
    return { body: { revision, fixes: { f: [fix(`for ${revision}`)] } } }
  })
}

describe('advice', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('comes after the findings, and is waited for where a key asks for it', async () => {
    const asked = advise(3)
    const [job, advice] = [useJob(), useAdvice()]
    job.newest = state(3)
    await nextTick()
    expect(advice.isThinking).toBe(true)
    expect(advice.of('f')).toEqual([])
    expect((await advice.whenReady('f'))[0]?.label).toBe('for 3')
    expect(advice.isThinking).toBe(false)
    expect(asked.map(({ path }) => path)).toEqual(['/api/jobs/j/advice'])
  })

  it('is asked once for a hand that goes on turning, and never shown for another state', async () => {
    const asked = advise(4)
    const [job, advice] = [useJob(), useAdvice()]
    job.newest = state(3)
    await nextTick()
    job.newest = state(4)
    await nextTick()
    expect((await advice.whenReady('f'))[0]?.label).toBe('for 4')
    expect(asked).toHaveLength(1)
    job.newest = state(5)
    await nextTick()
    expect(advice.of('f')).toEqual([])
  })
})
