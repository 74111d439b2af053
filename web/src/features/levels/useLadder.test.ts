import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'

import type { JobState } from '@/api/client'
import { useJob } from '@/stores/job'
import { answering } from '@/testing/server'
import { useLadder } from './useLadder'

const settle = async () => {
  await new Promise((done) => setTimeout(done, 5))
  await nextTick()
}

describe('the ladder while a knob moves', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('asks once at a time, and always for the newest position last', async () => {
    const asked: number[] = []
    const waiting: (() => void)[] = []
    answering(({ path, body }) => {
      if (path.includes('/options')) return { body: [] }
      const { edits } = body as { edits: { value: number }[] }
      asked.push(edits[0]?.value ?? 0)
      return new Promise((resolve) => {
        waiting.push(() => resolve({ body: { title: String(asked.at(-1)), run: 'r' } }))
      })
    })
    useJob().newest = { job: 'j', revision: 1, findings: [] } as unknown as JobState
    const scope = effectScope()
    const { ladder, preview } = scope.run(() => useLadder(ref('cam.L'), ref('')))!
    const position = (value: number) => [{ kind: 'set-control' as const, device: 'd', control: 'c', value }]

    await settle()
    expect(asked).toEqual([0])
    void preview(position(1))
    void preview(position(2))
    void preview(position(3))
    expect(asked).toHaveLength(1)
    waiting.shift()?.()
    await settle()
    expect(asked).toEqual([0, 3])
    waiting.shift()?.()
    await settle()
    expect(ladder.value?.title).toBe('3')
    scope.stop()
  })
})
