import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { JobState } from '@/api/client'
import { serve } from '@/testing/server'
import { pending, useJob, type Pending } from './job'
import { put } from './outbox'
import { shelf } from './shelf.testing'

const state = (revision: number, more: Partial<JobState> = {}) =>
  ({
    job: 'j',
    revision,
    sentence: `edit ${revision}`,
    can_undo: true,
    can_redo: false,
    findings: [],
    ...more,
  }) as JobState

const EDIT = [{ kind: 'remove-device' as const, device: 'bag' }]

describe('the open job', () => {
  beforeEach(() => {
    shelf.clear()
    setActivePinia(createPinia())
  })

  it('sends edits with the number of the state they were made on', async () => {
    const asked = serve({ body: state(3) }, { body: state(4) })
    const job = useJob()
    await job.open('j')
    expect(await job.edit(EDIT)).toBe(true)
    expect(asked[1]).toEqual({
      method: 'POST',
      path: '/api/jobs/j/edits',
      body: { base_revision: 3, who: '', request: expect.any(String), edits: EDIT },
    })
    expect(job.newest?.revision).toBe(4)
    expect(job.notice).toBe('edit 4')
  })

  it('shows the newer state after a conflict and keeps the edit to be done again', async () => {
    const conflict = {
      status: 409,
      body: {
        code: 'revision-conflict',
        detail: 'changed',
        yours: 'Remove bag',
        theirs: ['Ann’s'],
        by: 'Ann',
      },
    }
    const asked = serve({ body: state(3) }, conflict, { body: state(9) }, { body: state(10) })
    const job = useJob()
    await job.open('j')
    expect(await job.edit(EDIT)).toBe(false)
    expect(job.newest?.revision).toBe(9)
    expect(job.refused[0]?.refused).toEqual({ yours: 'Remove bag', theirs: ['Ann’s'], by: 'Ann' })
    expect(pending('j')).toHaveLength(1) // over a reload too
    expect(await Promise.all([job.again(), job.again()])).toEqual([true, false]) // pressed twice it is done once
    expect(asked.at(-1)?.body).toMatchObject({ base_revision: 9, edits: EDIT })
    expect([job.refused.length, pending('j').length]).toEqual([0, 0])
  })

  it('says what is wrong and keeps the state when the server refuses', async () => {
    serve({ body: state(3) }, { status: 422, body: { code: 'range', detail: 'gain goes to 75 dB' } })
    const job = useJob()
    await job.open('j')
    await job.edit(EDIT)
    expect(job.problem).toBe('gain goes to 75 dB')
    expect(job.newest?.revision).toBe(3)
    expect(job.busy).toBe(false)
  })

  it('sends an edit that nobody answers again, as the same one, and says meanwhile that it is not saved', async () => {
    vi.useFakeTimers()
    const gone = { status: 503, body: { code: 'store', detail: 'the database does not answer' } }
    const asked = serve({ body: state(3) }, new Error('down'), gone, { body: state(4) })
    const job = useJob()
    await job.open('j')
    const done = job.edit(EDIT)
    await vi.advanceTimersByTimeAsync(600)
    expect(job.unsaved).toBe(1)
    expect(pending('j')).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(2000)
    expect(await done).toBe(true)
    expect([job.newest?.revision, job.unsaved, pending('j').length]).toEqual([4, 0, 0])
    expect(new Set(asked.slice(1).map(({ body }) => JSON.stringify(body))).size).toBe(1)
    vi.useRealTimers()
  })

  it('delivers after a reload what the page before could not', async () => {
    const left: Pending = {
      box: 'plan-j',
      id: 'r',
      job: 'j',
      change: { base_revision: 3, who: 'Ann', request: 'r' },
      edits: EDIT,
      order: 1,
      tried: true,
    }
    put(left)
    const asked = serve({ body: state(3) }, { body: state(4) }, { body: state(5) })
    const job = useJob()
    await job.open('j')
    expect(await job.edit(EDIT)).toBe(true)
    expect(asked[1]?.body).toEqual({ ...left.change, edits: EDIT }) // as it was: it may have arrived
    expect(asked[2]?.body).toMatchObject({ base_revision: 4 })
    expect(pending('j')).toHaveLength(0)
  })

  it('keeps what waits behind an edit that nobody answers', async () => {
    vi.useFakeTimers()
    serve({ body: state(3) }, new Error('down'), { body: state(4) }, { body: state(5) })
    const job = useJob()
    await job.open('j')
    const both = [job.edit(EDIT), job.edit(EDIT)]
    await vi.advanceTimersByTimeAsync(100)
    expect([job.unsaved, pending('j').map(({ tried }) => tried)]).toEqual([2, [true, false]])
    await vi.advanceTimersByTimeAsync(1000)
    expect(await Promise.all(both)).toEqual([true, true])
    expect([job.unsaved, pending('j').length]).toEqual([0, 0])
    vi.useRealTimers()
  })

  it('sends after a reload what was never sent on the state that it finds', async () => {
    put<Pending>({
      box: 'plan-j',
      id: 'r',
      job: 'j',
      change: { base_revision: 1, who: '', request: 'r' },
      edits: EDIT,
      order: 1,
      tried: false,
    })
    const asked = serve({ body: state(3) }, { body: state(4) })
    const job = useJob()
    await job.open('j')
    await vi.waitFor(() => expect(job.newest?.revision).toBe(4))
    expect(asked[1]?.body).toMatchObject({ base_revision: 3, request: 'r' })
  })

  it('shows what somebody else did, and does not ask for what it knows', async () => {
    const asked = serve({ body: state(3) }, { body: state(5, { who: 'Ann' }) })
    const job = useJob()
    await job.open('j')
    job.hear({ what: 'plan', revision: 3 })
    job.hear({ what: 'plan', revision: 5 })
    await vi.waitFor(() => expect(job.newest?.revision).toBe(5))
    expect(job.notice).toBe('Ann: edit 5')
    expect(asked).toHaveLength(2)
  })

  it('goes on after a conflict of which the newer state could not be fetched at once', async () => {
    vi.useFakeTimers()
    const conflict = { status: 409, body: { code: 'revision-conflict', detail: 'changed' } }
    serve({ body: state(3) }, conflict, new Error('down'), { body: state(9) }, { body: state(10) })
    const job = useJob()
    await job.open('j')
    const first = job.edit(EDIT)
    const second = job.edit(EDIT)
    await vi.advanceTimersByTimeAsync(2000)
    expect([await first, await second]).toEqual([false, true])
    expect(job.newest?.revision).toBe(10)
    expect(job.refused).toMatchObject([{ edits: EDIT }]) // what was kept out stays until it is done again or dropped
    vi.useRealTimers()
  })

  it('edits nothing while an earlier state is looked at', async () => {
    const asked = serve({ body: state(3) }, { body: state(1) }, { body: state(4) })
    const job = useJob()
    await job.open('j')
    await job.lookAt(1)
    expect(job.state?.revision).toBe(1)
    expect(job.readOnly).toBe(true)
    expect(await job.edit(EDIT)).toBe(false)
    await job.undo()
    expect(asked).toHaveLength(2)
    await job.bringBack()
    expect(asked.at(-1)?.path).toBe('/api/jobs/j/revisions/1/bring-back')
    expect(job.readOnly).toBe(false)
  })

  it('sends one edit after the other, each on the state that the one before left', async () => {
    const asked = serve({ body: state(3) }, { body: state(4) }, { body: state(5) })
    const job = useJob()
    await job.open('j')
    const first = job.edit(EDIT)
    const second = job.edit(() => [{ kind: 'remove-device', device: `made on ${job.newest?.revision}` }])
    expect(await Promise.all([first, second])).toEqual([true, true])
    expect(asked.slice(1).map(({ body }) => body)).toEqual([
      expect.objectContaining({ base_revision: 3, edits: EDIT }),
      expect.objectContaining({ base_revision: 4, edits: [{ kind: 'remove-device', device: 'made on 4' }] }),
    ])
  })

  it.each([
    [{ step: 'undo' as const }, '/api/jobs/j/undo', {}],
    [{ step: 'redo' as const }, '/api/jobs/j/redo', {}],
    [{ bringBack: 2 }, '/api/jobs/j/revisions/2/bring-back', {}],
    [{ plan: { name: 'other' } }, '/api/jobs/j/plan', { plan: { name: 'other' } }],
  ])('delivers %o after a reload, as it was', async (doing, path, more) => {
    const change = { base_revision: 3, who: 'Ann', request: 'r' }
    put<Pending>({ ...doing, box: 'plan-j', id: 'r', job: 'j', change, order: 1, tried: true })
    const asked = serve({ body: state(7) }, { body: state(4) }, { body: state(8) })
    const job = useJob()
    await job.open('j')
    await vi.waitFor(() => expect(pending('j')).toHaveLength(0))
    expect(asked[1]).toMatchObject({ path, body: { ...change, ...more } })
    expect(job.newest?.revision).toBe(7) // it had arrived long ago: others have gone on since
  })

  it('keeps an undo until it is answered, and never undoes what somebody else did meanwhile', async () => {
    vi.useFakeTimers()
    const asked = serve({ body: state(3) }, { body: state(4) }, new Error('down'), { body: state(5) })
    const job = useJob()
    await job.open('j')
    const both = [job.edit(EDIT), job.undo()]
    await vi.advanceTimersByTimeAsync(100)
    expect([job.unsaved, pending('j').length]).toEqual([1, 1])
    await vi.advanceTimersByTimeAsync(1000)
    expect(await Promise.all(both)).toEqual([true, true])
    expect(asked.at(-1)).toMatchObject({ path: '/api/jobs/j/undo', body: { base_revision: 4 } })
    vi.useRealTimers()
  })

  it('does not undo where the edit that it was meant for was kept out', async () => {
    const conflict = { status: 409, body: { code: 'revision-conflict', detail: 'changed' } }
    const asked = serve({ body: state(3) }, conflict, { body: state(9) })
    const job = useJob()
    await job.open('j')
    expect(await Promise.all([job.edit(EDIT), job.undo()])).toEqual([false, false])
    expect(asked.map(({ path }) => path)).toEqual(['/api/jobs/j', '/api/jobs/j/edits', '/api/jobs/j'])
    expect(job.refused).toMatchObject([{ edits: EDIT }])
  })

  it('offers a plan file that was kept out again, and no undo', async () => {
    const conflict = { status: 409, body: { code: 'revision-conflict', detail: 'changed' } }
    const asked = serve(
      { body: state(3) },
      conflict,
      { body: state(4) },
      conflict,
      { body: state(5) },
      { body: state(6) },
    )
    const job = useJob()
    await job.open('j')
    expect(await job.undo()).toBe(false)
    expect(job.refused).toHaveLength(0)
    expect(await job.replace({ name: 'other' })).toBe(false)
    expect(job.refused).toMatchObject([{ plan: { name: 'other' } }])
    expect(await job.again()).toBe(true)
    expect(asked.at(-1)?.body).toMatchObject({ base_revision: 5, plan: { name: 'other' } })
    expect(pending('j')).toHaveLength(0)
  })

  it('shows both versions as they are after another try that was kept out', async () => {
    const conflict = (theirs: string) => ({
      status: 409,
      body: { code: 'revision-conflict', detail: 'changed', yours: 'mine', theirs: [theirs] },
    })
    serve({ body: state(3) }, conflict('one'), { body: state(4) }, conflict('two'), { body: state(5) })
    const job = useJob()
    await job.open('j')
    await job.edit(EDIT)
    expect(await job.again()).toBe(false)
    expect(job.refused.map(({ refused }) => refused)).toEqual([{ yours: 'mine', theirs: ['two'] }])
    job.forgetRefused()
    expect(pending('j')).toHaveLength(0)
  })

  it('asks for undo and redo only where there is something', async () => {
    const asked = serve({ body: state(1, { can_undo: false }) })
    const job = useJob()
    await job.open('j')
    await job.undo()
    await job.redo()
    expect(asked).toHaveLength(1)
  })
})
