import { describe, expect, it, vi } from 'vitest'

import { onPage, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useCableTest } from './useCableTest'
import { useLabelPapers } from './useLabelPapers'
import { useStock } from './useStock'
import { useTrunkLine } from './useTrunkLine'

describe('useStock', () => {
  it('shows what is there, takes what an action leaves, and says what was refused', async () => {
    const pieces = [{ id: 'c', count: 4 }]
    const asked = answering(({ method, path }) => {
      if (path.endsWith('/used')) return { status: 409, body: { code: 'x', detail: 'only 4 are left' } }
      return { body: { pieces: method === 'GET' ? pieces : [] } }
    })
    const after = vi.fn(() => Promise.resolve())
    const { made, leave } = onPage(() => useStock(after))
    await settle()
    expect(made.stock.value?.pieces).toEqual(pieces)
    expect([await made.actions.use(['x']), await made.actions.use(['c']), made.problem.value]).toEqual([
      false,
      false,
      expect.stringContaining('only 4 are left'),
    ])
    expect(await made.actions.add('2 XLR 5 m')).toBe(true)
    expect([made.stock.value?.pieces, after.mock.calls.length]).toEqual([[], 1])
    expect(asked.at(-1)?.body).toEqual({ line: '2 XLR 5 m' })
    leave()
  })
})

describe('useTrunkLine', () => {
  it('shows what the newest text means, and empties the line once that lies in the trunk', async () => {
    const answers: (() => void)[] = []
    answering(({ body }) => {
      const { line } = body as { line: string }
      return new Promise((done) => answers.push(() => done({ body: [{ words: line }] })))
    })
    const add = vi.fn(() => Promise.resolve(true))
    const { made, leave } = onPage(() => useTrunkLine(add, () => Promise.resolve(true)))
    made.line.value = '2 XLR'
    await settle()
    made.line.value = '2 XLR 5 m'
    await settle()
    answers.reverse().forEach((answer) => answer())
    await settle()
    expect(made.means.value.map(({ words }) => words)).toEqual(['2 XLR 5 m'])
    await made.put()
    await settle()
    expect([add.mock.calls, made.line.value, made.means.value]).toEqual([[['2 XLR 5 m']], '', []])
    leave()
  })

  it('shows what a table holds before it is taken, and whose file was wrong', async () => {
    let isGood = true
    answering(() =>
      isGood ? { body: [{ label: 'XLR' }] } : { status: 422, body: { code: 'x', detail: 'line 2' } },
    )
    const read = vi.fn(() => Promise.resolve(true))
    const { made, leave } = onPage(() => useTrunkLine(() => Promise.resolve(true), read))
    await made.look(new File(['what'], 'stock.csv'))
    expect(made.holds.value).toHaveLength(1)
    await made.take()
    expect([read.mock.calls, made.holds.value]).toEqual([[['what']], []])
    isGood = false
    await made.look(new File(['?'], 'bad.csv'))
    expect(made.problem.value).toContain('bad.csv: line 2')
    leave()
  })
})

describe('useCableTest', () => {
  it('keeps the contacts that were found joined, and says what that means', async () => {
    const asked = answering(({ method, path }) => {
      if (method === 'GET') return { body: { right: [{ near: '1', far: '1' }] } }
      return { body: path.endsWith('/test') ? { fault: 'swapped' } : [{ near: '2', far: '3' }] }
    })
    const looked = vi.fn(() => Promise.resolve(true))
    const { made, leave } = onPage(() => useCableTest(() => 'c', looked))
    await settle()
    expect([made.isRight('1', '1'), made.isRight('2', '3')]).toEqual([true, false])
    await made.standIn()
    expect(made.isShown('2', '3')).toBe(true)
    made.toggle('1', '1')
    made.toggle('2', '3')
    await made.keep(made.shown.value)
    expect(asked.at(-1)?.body).toEqual({ pairs: [{ near: '1', far: '1' }] })
    expect([made.result.value, looked.mock.calls.length]).toEqual(['swapped', 1])
    leave()
  })
})

describe('useLabelPapers', () => {
  it('asks for the papers of a job, and of none before there is one', async () => {
    const asked = answering(() => ({ body: [{ id: 'a4-21' }] }))
    const { made, leave } = onPage(() => [useLabelPapers(() => ''), useLabelPapers(() => 'j')] as const)
    await settle()
    expect([made[0].value, made[1].value]).toEqual([null, [{ id: 'a4-21' }]])
    expect(asked.map(({ path }) => path)).toEqual(['/api/jobs/j/paper/labels'])
    leave()
  })
})
