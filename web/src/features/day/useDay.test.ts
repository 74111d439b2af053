import { describe, expect, it } from 'vitest'

import type { DayTask } from '@/api/client'
import { onPage, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useDay } from './useDay'
import { useDaySheet } from './useDaySheet'

const task = (id: string, at: string) => ({ id, what: `Change ${id}`, at, kind: 'battery', device: id })
const LOG = { seq: 1, takes: [], running: '', next: { slate: '1', number: 1 }, next_set_up: { slate: '2' } }

describe('useDay', () => {
  it('shows three tasks, tells which have moved since the last change, and logs what is done', async () => {
    const tasks = ['a', 'b', 'c', 'd'].map((id, at) => task(id, `1${at}:00`))
    const asked = answering(({ path }) => ({ body: path.includes('/day') ? { tasks } : LOG }))
    const { made, moveOn, edits, leave } = onPage(useDay)
    await settle()
    expect(made.next.value.map(({ id }) => id)).toEqual(['a', 'b', 'c'])
    tasks[1] = task('b', '12:30')
    moveOn()
    await settle()
    expect([
      made.moved.value,
      made.hasMoved(tasks[1] as DayTask),
      made.hasMoved(tasks[0] as DayTask),
    ]).toEqual([1, true, false])
    expect(asked.map(({ path }) => path)).toContain('/api/jobs/j/day?rest=true&first=true')
    made.later(tasks[0] as DayTask)
    expect(made.next.value.map(({ id }) => id)).toEqual(['b', 'c', 'd'])
    made.done(tasks[1] as DayTask)
    await settle()
    const sent = asked.find(({ method }) => method === 'POST')?.body as {
      entries: { act: string; text: string }[]
    }
    expect(sent.entries.map(({ act, text }) => [act, text])).toEqual([['done', 'b']])
    await made.slip(700, 25)
    expect(edits).toEqual([{ kind: 'shift-day', from_min: 700, by_min: 25 }])
    leave()
  })
})

describe('useDaySheet', () => {
  it('makes what a calendar holds one change, and says whose file was wrong', async () => {
    let body: unknown = { edits: [{ kind: 'save-set-up', label: '1A' }] }
    answering(() => ({ status: body ? 200 : 422, body: body ?? { code: 'x', detail: 'line 2: no time' } }))
    const { made, edits, leave } = onPage(useDaySheet)
    const sheet = new File(['BEGIN:VCALENDAR'], 'day.ics')
    await made.read(sheet)
    expect(edits.map(({ kind }) => kind)).toEqual(['save-set-up'])
    body = null
    await made.read(sheet)
    expect(made.problem.value).toContain('day.ics: line 2: no time')
    leave()
  })
})
