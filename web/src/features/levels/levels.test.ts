import { describe, expect, it } from 'vitest'
import { ref, shallowRef } from 'vue'

import type { Ladder, MatchingOption } from '@/api/client'
import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useCompared } from './useCompared'
import { useHeard } from './useHeard'

const ladder = (track: string, title = track) => ({ track, title }) as unknown as Ladder

describe('useCompared', () => {
  it('compares a track with another one, and with itself as it was', async () => {
    answering(({ path }) => ({ body: ladder('bag.1', path) }))
    const [track, now] = [ref('cam.L'), shallowRef<Ladder | null>(ladder('cam.L', 'before'))]
    const { made } = onJob(() => useCompared(track, now, shallowRef([])))
    made.compared.value = 'track:bag.1'
    await settle()
    expect(made.other.value?.label).toBe('/api/jobs/j/tracks/bag.1/ladder?through=')
    expect(made.isOtherTrack.value).toBe(true)
    made.hold()
    now.value = ladder('cam.L', 'after')
    made.compared.value = 'before'
    expect(made.other.value?.ladder.title).toBe('before')
    expect(made.isOtherTrack.value).toBe(false)
  })

  it('draws the first option of a school, one at a time', async () => {
    const asked = answering(() => ({ body: ladder('cam.L') }))
    const options = shallowRef([
      { label: 'trim', best_for: ['clean'], edits: [{ kind: 'set-control' }] },
      { label: 'pad', best_for: ['guide'], edits: [] },
    ] as unknown as MatchingOption[])
    const { made } = onJob(() => useCompared(ref('cam.L'), shallowRef(null), options))
    made.compared.value = 'guide'
    await settle()
    expect(made.other.value?.label).toBe('simplest option')
    made.compared.value = 'clean'
    await settle()
    expect(made.other.value?.label).toBe('cleanest option')
    expect(asked.at(-1)?.body).toEqual({ edits: [{ kind: 'set-control' }] })
  })
})

describe('useHeard', () => {
  it('reads the channel that was named, and shows nothing of it on another track', async () => {
    const asked = answering(() => ({ body: { source: 'Voice' } }))
    const track = ref('bag.1')
    const { made } = onJob(() => useHeard(track))
    made.channel.value = 2
    await made.read({ target: { files: [new File(['x'], 'a.wav')], value: '' } } as unknown as Event)
    expect(asked[0]?.path).toBe('/api/jobs/j/tracks/bag.1/heard?channel=2')
    expect(made.heard.value).toEqual({ source: 'Voice' })
    track.value = 'bag.2'
    await settle()
    expect(made.heard.value).toBeNull()
  })
})
