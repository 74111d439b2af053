import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick } from 'vue'

import { answering, type Reply } from '@/testing/server'
import { useLeadDraft } from './useLeadDraft'

const judged = { pictures: {}, balanced: true, loss_db: null, uses: [] }

/** Answers in order, and then judges well. */
const serve = (...replies: Reply[]) => answering(() => replies.shift() ?? { body: judged })
const inScope = <T>(compose: () => T): T => effectScope().run(compose) as T
const settled = () => new Promise((done) => setTimeout(done, 5))

describe('a lead that is being made', () => {
  beforeEach(() => vi.unstubAllGlobals())

  it('joins and parts contacts, and asks for a judgement after each', async () => {
    const asked = serve()
    const lead = inScope(useLeadDraft)
    lead.toggle('2', 'T')
    await nextTick()
    expect(lead.isJoined('2', 'T')).toBe(true)
    lead.toggle('2', 'T')
    await settled()
    expect(lead.isJoined('2', 'T')).toBe(false)
    expect(asked.length).toBeGreaterThanOrEqual(2)
  })

  it('says what the server refuses, and keeps the last judgement of what could be', async () => {
    serve({ body: judged }, { status: 422, body: { code: 'plan', detail: 'nothing is joined in it' } })
    const lead = inScope(useLeadDraft)
    await settled()
    lead.toggle('1', 'S')
    await settled()
    expect(lead.problem).toBe('nothing is joined in it')
    expect(lead.judged).toEqual(judged)
  })

  it('forgets its cores when an end becomes another plug', () => {
    serve()
    const lead = inScope(useLeadDraft)
    lead.toggle('2', 'T')
    lead.setConnector('receiving', 'xlr3')
    expect(lead.wires).toEqual([])
    expect(lead.draft.receiving).toEqual({ connector: 'xlr3', gender: 'male' })
  })

  it('has two ways of one plug, each with its own cores', () => {
    serve()
    const lead = inScope(useLeadDraft)
    lead.toggle('2', 'T')
    lead.setTwoWays(true)
    expect(lead.branch).toBe('L')
    lead.branch = 'R'
    lead.toggle('2', 'R')
    expect(lead.draft.ways['L']?.wires).toHaveLength(2)
    expect(lead.isJoined('2', 'R')).toBe(true)
    lead.setTwoWays(false)
    expect(Object.keys(lead.draft.ways)).toEqual([''])
    expect(lead.isJoined('2', 'T')).toBe(true)
  })

  it('begins with a copy, so that the lead it was taken from stays as it was', () => {
    serve()
    const lead = inScope(useLeadDraft)
    const stock = {
      id: 'xlr',
      label: 'XLR',
      sending: { connector: 'xlr3', gender: 'female' as const },
      receiving: { connector: 'xlr3', gender: 'male' as const },
      ways: { '': { wires: [{ near: '2', far: '2', ohm: 0, blocks_dc: false }], bridges: [], windings: [] } },
      short_m: null,
    }
    lead.take(stock)
    lead.toggle('3', '3')
    expect(stock.ways[''].wires).toHaveLength(1)
    expect(lead.wires).toHaveLength(2)
  })
})
