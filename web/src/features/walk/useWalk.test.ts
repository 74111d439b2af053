import { describe, expect, it } from 'vitest'

import type { Walk, WalkMark } from '@/api/client'
import { overlaid } from './useWalk'

const item = (id: string, mark: 'open' | 'good' | 'fault') => ({
  id,
  text: id,
  why: '',
  mark,
  who: '',
  made: null,
})
const WALK: Walk = {
  id: 'w',
  revision: 1,
  created: '2026-11-25T08:00:00Z',
  good: 1,
  faults: 0,
  count: 3,
  groups: [
    { label: 'Bag', items: [item('a', 'good'), item('b', 'open')] },
    { label: 'Camera', items: [item('c', 'open')] },
  ],
}
const told = (id: string, mark: WalkMark['mark']): WalkMark => ({ item: id, mark, made: 'now', who: 'me' })

describe('overlaid', () => {
  it('shows what is on its way as if it had arrived', () => {
    const seen = overlaid(WALK, [told('b', 'good'), told('c', 'fault'), told('a', 'open')])
    expect([seen.good, seen.faults]).toEqual([1, 1])
    expect(seen.groups[0]?.items.map(({ mark }) => mark)).toEqual(['open', 'good'])
  })

  it('leaves a walk with nothing on its way as it is', () => {
    expect(overlaid(WALK, [])).toEqual(WALK)
  })
})
