import { describe, expect, it } from 'vitest'
import { ref } from 'vue'

import type { Sync } from '@/api/client'
import { onJob, settle } from '@/testing/job'
import { answering, serve } from '@/testing/server'
import { useSync } from './useSync'
import { useWaves } from './useWaves'

const EMPTY = { files: [], clips: [], match: null }
const CLIP = { other: 'c', reference: 'r', offset_s: 1.5, drift_ppm: null, nudge_samples: 0 }

describe('useSync', () => {
  it('sends files one after the other, and tells which were refused', async () => {
    answering(({ method, path }) => {
      if (method === 'GET') return { body: EMPTY }
      return path.includes('bad')
        ? { status: 422, body: { code: 'format', detail: 'no sound in it' } }
        : { body: { id: 'x' } }
    })
    const { made, stop } = onJob(useSync)
    await made.send([new File(['a'], 'bad.wav'), new File(['b'], 'good.wav')])
    expect([made.problem.value, made.sending.value]).toEqual(['bad.wav: no sound in it', ''])
    stop()
  })

  it('moves a clip from where the last press put it, though that is on its way', async () => {
    const asked = answering(({ method }) => ({ body: { ...EMPTY, clips: [CLIP], method } }))
    const { made, stop } = onJob(useSync)
    await settle()
    made.nudge(CLIP as unknown as Sync['clips'][number], 10)
    made.nudge(CLIP as unknown as Sync['clips'][number], 5)
    await settle()
    const moved = asked
      .filter(({ method }) => method === 'PUT')
      .map(({ body }) => (body as { samples: number }).samples)
    expect(moved).toEqual([10, 15])
    stop()
  })

  it('begins by itself once all files were looked at, and not again where that came to nothing', async () => {
    const files = ['recorder', 'camera'].map((side) => ({ id: side, side, state: 'done' }))
    const view = { ...EMPTY, files, is_laid: false, match: { state: 'failed', message: 'nothing' } }
    const asked = answering(() => ({ body: view }))
    const { made, stop } = onJob(useSync)
    await settle()
    await made.setSide('recorder', 'recorder')
    await settle()
    expect(asked.filter(({ path }) => path.endsWith('/match'))).toHaveLength(1)
    expect(asked.some(({ path }) => path.endsWith('/files/recorder/side'))).toBe(true)
    stop()
  })

  it('is busy while a match is under way', async () => {
    serve({ body: { ...EMPTY, match: { state: 'reading' } } }, { body: EMPTY })
    const { made, stop } = onJob(useSync)
    await settle()
    expect(made.isBusy.value).toBe(true)
    stop()
  })
})

describe('useWaves', () => {
  it('asks for the stretch that is looked at, and plays no less than two seconds of it', async () => {
    const asked = answering(() => ({ body: { at_s: 0 } }))
    const [at, span, hasSound] = [ref(3), ref(0.1), ref(true)]
    const clip = ref(CLIP as unknown as Sync['clips'][number])
    const { made } = onJob(() => useWaves(ref('j'), clip, at, span, hasSound))
    await settle()
    expect(asked.at(-1)?.path).toContain('at_s=3&span_s=0.1')
    expect(made.heard.value).toContain('span_s=2&offset=1.5')
    hasSound.value = false
    at.value = 4
    await settle()
    expect(made.waves.value).toBeNull()
  })
})
