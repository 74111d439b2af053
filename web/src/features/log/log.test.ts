import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import type { Log, LoggedTake, Photo } from '@/api/client'
import { takeSound } from '@/composables/soundInput'
import { kept } from '@/stores/outbox'
import { onPage, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { usePhotos } from './usePhotos'
import { useReadTimecode } from './useReadTimecode'
import { useSceneNotes } from './useSceneNotes'
import { useTakes } from './useTakes'

vi.mock('@/composables/soundInput', () => ({ hasSoundInput: () => true, takeSound: vi.fn() }))

const LOG = {
  seq: 1,
  takes: [],
  running: '',
  next: { slate: '12', number: 4, label: '12-4' },
  next_set_up: { slate: '13' },
}

describe('useTakes', () => {
  it('rolls, cuts and marks by taps that stand at once and are sent in their order', async () => {
    const sent: { act: string; slate: string; number: number; status: string; text: string }[] = []
    const log = { ...LOG } as unknown as Log
    answering(({ method, body }) => {
      if (method === 'GET') return { body: log }
      sent.push(...(body as { entries: typeof sent }).entries)
      return { status: 503, body: { code: 'busy', detail: 'later' } }
    })
    const { made, leave } = onPage(useTakes)
    await settle()
    made.roll()
    expect([made.running.value?.label, made.elapsed.value]).toEqual(['12-4', 0])
    made.roll('14')
    expect(made.takes.value).toHaveLength(1)
    made.cut('circled')
    expect([made.running.value, made.last.value?.status]).toEqual([undefined, 'circled'])
    made.status(made.last.value as LoggedTake, 'circled')
    expect(made.last.value?.status).toBe('open')
    made.note(made.last.value, '  ')
    made.note(made.last.value, ' plane ')
    made.strike(made.last.value as LoggedTake)
    expect(made.last.value).toBeUndefined()
    await settle()
    const acts = kept<{ box: string; id: string; order: number; entry: { act: string } }>('log-j').map(
      ({ entry }) => entry.act,
    )
    expect(acts).toEqual(['roll', 'cut', 'status', 'status', 'note', 'strike'])
    expect(sent[0]).toMatchObject({ act: 'roll', slate: '12', number: 4 })
    leave()
  })
})

describe('useSceneNotes', () => {
  it('asks for the scene that is shot, and not before one is', async () => {
    const asked = answering(() => ({ body: { playback: [] } }))
    const log = ref<Log | null>(null)
    const { moveOn, leave } = onPage(() => useSceneNotes(log, () => '12A'))
    await settle()
    expect(asked).toEqual([])
    log.value = LOG as unknown as Log
    await settle()
    moveOn()
    await settle()
    expect(asked.map(({ path }) => path)).toEqual(Array(2).fill('/api/jobs/j/log/scene?slate=12A'))
    leave()
  })
})

describe('useReadTimecode', () => {
  it('counts on from what came in, at the moment at which it ended', async () => {
    const ended = new Date('2026-11-29T10:00:02Z')
    vi.mocked(takeSound).mockResolvedValueOnce({ sound: new Blob(['x']), ended })
    answering(() => ({ body: { timecode: '10:00:02:05' } }))
    const tap = vi.fn()
    const { made, leave } = onPage(() => useReadTimecode(() => 'j', tap))
    await made.listen()
    expect(tap).toHaveBeenCalledWith({ act: 'clock', timecode: '10:00:02:05', made: ended.toISOString() })
    leave()
  })

  it('says so where the browser keeps the sound input to itself', async () => {
    vi.mocked(takeSound).mockRejectedValueOnce(new DOMException('denied', 'NotAllowedError'))
    const { made, leave } = onPage(() => useReadTimecode(() => 'j', vi.fn()))
    await made.listen()
    expect([made.isListening.value, made.problem.value]).toEqual([false, expect.stringContaining('allow it')])
    leave()
  })
})

describe('usePhotos', () => {
  it('shows what is there, removes it, and says what cannot be read', async () => {
    const asked = answering(() => ({ body: null }))
    const there = [{ id: 'p', take: '', device: 'cam', what: 'Cam', text: '' }] as unknown as Photo[]
    const look = vi.fn()
    const { made, leave } = onPage(() =>
      usePhotos(
        () => 'j',
        () => there,
        look,
      ),
    )
    expect(made.shown.value.map(({ src, waits }) => [src, waits])).toEqual([
      ['/api/jobs/j/log/photos/p', false],
    ])
    await made.remove(made.shown.value[0]!)
    expect([asked.map(({ method }) => method), look.mock.calls.length]).toEqual([['DELETE'], 1])
    await made.take(new Blob(['no picture']), { take: '', device: 'cam', text: '' }, 'Cam')
    expect(made.problem.value).toContain('take it as JPEG')
    leave()
  })
})
