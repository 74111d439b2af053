import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useCable } from './useCable'
import { tools, useFields, useTool } from './useTools'

const query = ref<Record<string, string>>({ unit: 'V' })
vi.mock('vue-router', () => ({
  useRoute: () => ({
    get query() {
      return query.value
    },
  }),
  useRouter: () => ({ replace: (to: { query: Record<string, string> }) => (query.value = to.query) }),
}))

describe('useFields', () => {
  it('keeps what is asked in the address, and begins with an example', () => {
    const { made } = onJob(useFields)
    expect([made.value?.value, made.unit?.value]).toEqual(['-10', 'V'])
    if (made.value) made.value.value = '4'
    expect(query.value).toEqual({ unit: 'V', value: '4' })
  })
})

describe('useTool', () => {
  it('asks anew when what it is asked changes, and says what is wrong', async () => {
    const asked = answering(({ path }) =>
      path.includes('value=1')
        ? { body: { words: 'one' } }
        : { status: 422, body: { detail: 'no such unit' } },
    )
    const value = ref(1)
    const { made } = onJob(() =>
      useTool(
        () => String(value.value),
        () => tools.convert(value.value, 'V', 'dBu'),
      ),
    )
    await settle()
    expect(made.value).toEqual({ words: 'one', isWrong: false })
    value.value = 2
    await settle()
    expect(made.value).toEqual({ words: 'no such unit', isWrong: true })
    expect(asked).toHaveLength(2)
  })
})

describe('useCable', () => {
  it('shows the cable of two plugs, and says where there is none', async () => {
    const cable = (id: string, from: string, to: string) => ({
      id,
      label: id,
      sending: { connector: from },
      receiving: { connector: to },
      ways: {},
    })
    const leads = [cable('a', 'xlr3', 'trs35'), cable('b', 'xlr3', 'trs35'), cable('c', 'bnc', 'bnc')]
    const asked = answering(({ method }) => ({
      body: method === 'GET' ? { ends: [], leads } : { balanced: true },
    }))
    query.value = { cable: 'b' }
    const { made } = onJob(useCable)
    await settle()
    expect(made.cables.value.map(({ id }) => id)).toEqual(['a', 'b'])
    expect((asked.at(-1)?.body as { label: string }).label).toBe('b')
    await made.put({ from: 'bnc', cable: '' })
    await settle()
    expect(made.cable.value).toBeUndefined()
    expect(made.judged.value).toBeNull()
  })
})
