import { describe, expect, it } from 'vitest'
import { ref } from 'vue'

import type { Clock } from '@/api/client'
import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useClap } from './useClap'
import { useClock } from './useClock'
import { usePictureDelay } from './usePictureDelay'

describe('useClock', () => {
  it('follows the job, and says what is wrong with its newest state', async () => {
    let count = 0
    answering(() =>
      ++count === 1 ? { body: { rate: '25' } } : { status: 422, body: { code: 'plan', detail: 'a loop' } },
    )
    const { made, moveOn } = onJob(useClock)
    await settle()
    expect(made.clock.value).toEqual({ rate: '25' })
    moveOn()
    await settle()
    expect(made.problem.value).toBe('a loop')
  })
})

describe('usePictureDelay', () => {
  it('sends what was typed as it is, and edits what the server makes of it', async () => {
    const asked = answering(() => ({ body: { edits: [{ kind: 'set-figure' }] } }))
    const { made, edits } = onJob(usePictureDelay)
    await made.save({ device: 'cam', over_sdi: true }, '200 ms')
    expect(asked[0]?.path).toBe('/api/jobs/j/clock/pictures/cam?delay=200%20ms&by_sdi=true')
    expect(edits).toEqual([{ kind: 'set-figure' }])
  })
})

describe('useClap', () => {
  it('reads a clap for the first camera and the frame that was counted, and uses its figure once', async () => {
    const asked = answering(() => ({ body: { edits: [{ kind: 'set-figure' }] } }))
    const late = ref({ device: 'mix', pictures: [{ device: 'cam' }] } as Clock['screens'][number])
    const { made, edits } = onJob(() => useClap(late))
    made.frame.value = 12
    await made.take({ target: { files: [new File(['x'], 'clap.wav')], value: '' } } as unknown as Event)
    expect(asked[0]?.path).toBe('/api/jobs/j/clock/screens/mix/clap?camera=cam&frame=12')
    await made.use()
    await made.use()
    expect([edits.length, made.found.value]).toEqual([1, null])
  })
})
