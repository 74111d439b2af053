import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'

import { ApiProblem } from '@/api/connection'
import { useJob } from '@/stores/job'
import { useFetched } from './useFetched'

describe('what the server says of what stands here', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('drops a late answer to an earlier question', async () => {
    const key = ref('slow')
    const answers: Record<string, (text: string) => void> = {}
    const found = effectScope().run(() =>
      useFetched(
        () => key.value,
        (name) => new Promise<string>((done) => (answers[name] = done)),
      ),
    )!
    key.value = 'quick'
    await nextTick()
    answers.quick!('of quick')
    answers.slow!('of slow')
    await nextTick()
    await nextTick()
    expect(found.value).toBe('of quick')
  })

  it('says what was wrong, and asks nothing without a key', async () => {
    const key = ref<string | null>(null)
    const fetch = vi.fn(() => Promise.reject(new ApiProblem(404, 'not-found', 'the job has no run 7')))
    const found = effectScope().run(() => useFetched(() => key.value, fetch))!
    expect(fetch).not.toHaveBeenCalled()
    key.value = 'run-7'
    await vi.waitFor(() => expect(useJob().problem).toBe('the job has no run 7'))
    expect(found.value).toBeNull()
  })
})
