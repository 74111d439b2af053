import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useGrammar } from './useGrammar'
import { useHistory } from './useHistory'
import { useNews } from './useNews'
import { useSayLine } from './useSayLine'

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))
const answer = (title: string, edits: unknown[] = [{ kind: title }]) => ({
  proposals: [{ title, steps: [], outcome: '', edits }],
  completions: [`${title} more`],
  problem: '',
})

describe('useGrammar', () => {
  it('is not asked for before it is wanted', async () => {
    const asked = answering(() => ({ body: { forms: [] } }))
    const isWanted = ref(false)
    const { made } = onJob(() => useGrammar(isWanted))
    expect(asked).toHaveLength(0)
    isWanted.value = true
    await settle()
    expect(made.value).toEqual({ forms: [] })
  })
})

describe('useHistory', () => {
  it('compares an earlier revision with the newest', async () => {
    const asked = answering(({ path }) => ({
      body: path.includes('differences') ? ['bag is new'] : [{ number: 1 }, { number: 2 }],
    }))
    const { made } = onJob(() => useHistory(ref(true)), { revision: 2 })
    await settle()
    expect([made.entries.value?.length, made.after.value]).toEqual([2, 2])
    made.before.value = 1
    await settle()
    expect(asked.at(-1)?.path).toContain('before=1&after=2')
    expect(made.changes.value).toEqual(['bag is new'])
  })
})

describe('useNews', () => {
  it('listens while the window is seen, and tells the job', async () => {
    const sources: { url: string; closed: boolean; onmessage?: (message: { data: string }) => void }[] = []
    class Source {
      closed = false
      constructor(readonly url: string) {
        sources.push(this)
      }
      close() {
        this.closed = true
      }
    }
    const page = { hidden: false, show: (): void => undefined }
    vi.stubGlobal('EventSource', Source)
    vi.stubGlobal('document', {
      get hidden() {
        return page.hidden
      },
      addEventListener: (_: string, listener: () => void) => (page.show = listener),
      removeEventListener: vi.fn(),
    })
    const { job, stop } = onJob(useNews)
    const hear = vi.spyOn(job, 'hear').mockImplementation(() => undefined)
    sources[0]?.onmessage?.({ data: '{"revision":2}' })
    expect(hear).toHaveBeenCalledWith({ revision: 2 })
    page.hidden = true
    page.show()
    expect(sources.map(({ closed }) => closed)).toEqual([true])
    page.hidden = false
    page.show()
    expect(sources[1]?.url).toBe('/api/jobs/j/news')
    stop()
    expect(sources[1]?.closed).toBe(true)
    vi.unstubAllGlobals()
  })
})

describe('useSayLine', () => {
  const line = () => {
    const [leave, enter] = [vi.fn(), vi.fn()]
    return { ...onJob(() => useSayLine(ref(true), leave, enter)), leave, enter }
  }

  it('answers what is typed after a pause, and drops the answer to what was typed before', async () => {
    const asked = answering(({ body }) => ({ body: answer((body as { text: string }).text) }))
    const { made } = line()
    made.text.value = 'boom'
    await settle()
    made.text.value = 'boom to bag'
    await wait(200)
    expect(asked.map(({ body }) => (body as { text: string }).text)).toEqual(['boom to bag'])
    expect(made.choices.value.map(({ title }) => title)).toEqual(['boom to bag'])
    expect(made.complete()).toBe(true)
    expect(made.text.value).toBe('boom to bag more')
  })

  it('carries lines out one after the other, and leaves the field after the last', async () => {
    answering(({ body }) => ({ body: answer((body as { text: string }).text) }))
    const { made, edits, leave } = line()
    for (const text of ['first', 'second']) {
      made.text.value = text
      made.take(undefined, false)
    }
    await settle()
    await settle()
    expect(edits.map(({ kind }) => kind)).toEqual(['first', 'second'])
    expect(made.underWay.value).toEqual([])
    expect(leave).toHaveBeenCalledTimes(1)
  })

  it('puts a line back that means nothing, and lists it where another is being typed', async () => {
    answering(() => ({ body: { proposals: [], completions: [], problem: 'nothing here is called that' } }))
    const { made, enter } = line()
    made.text.value = 'bom to bag'
    made.take(undefined, false)
    await settle()
    expect(made.text.value).toBe('bom to bag')
    made.take(undefined, false)
    made.text.value = 'something else'
    await settle()
    expect(made.undone.value).toEqual([{ text: 'bom to bag', why: 'nothing here is called that' }])
    made.takeBack(0)
    expect([made.text.value, made.undone.value.length]).toEqual(['bom to bag', 0])
    expect(enter).toHaveBeenCalled()
  })

  it('goes round its answers', () => {
    const { made } = line()
    made.answer.value = { proposals: [{}, {}, {}], completions: [], problem: '' } as never
    made.move(-1)
    expect(made.chosen.value).toBe(2)
    made.move(1)
    expect(made.chosen.value).toBe(0)
  })
})
