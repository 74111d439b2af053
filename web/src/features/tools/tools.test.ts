import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
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
