import { describe, expect, it } from 'vitest'

import type { Trunk, TrunkTick } from '@/api/client'
import { overlaid } from './useTrunk'

const line = (id: string, state: TrunkTick['state']) => ({
  ...{
    id,
    label: id,
    count: 1,
    case: '',
    kind: 'cable' as const,
    runs: [],
    used_up: [],
    kit: '',
    is_spare: false,
  },
  ...{ warning: '', state, who: '' },
})
const TRUNK: Trunk = {
  ...{ summary: '', day: '', claimed: false, has_stock: true, served: [], wanted: [], other_ways: [] },
  ...{ held: [], devices: [], weight: '', notes: [], packed: 1 },
  packing: [line('a', 'packed'), line('b', 'open')],
}
const told = (item: string, state: TrunkTick['state']): TrunkTick => ({ item, state, made: 'now', who: 'me' })

describe('overlaid', () => {
  it('shows ticks that are on their way as if they had arrived', () => {
    const seen = overlaid(TRUNK, [told('b', 'packed'), told('a', 'open')])
    expect(seen.packing.map(({ state }) => state)).toEqual(['open', 'packed'])
    expect([seen.packed, seen.packing[1]?.who]).toEqual([1, 'me'])
  })

  it('leaves a list with nothing on its way as it is', () => {
    expect(overlaid(TRUNK, [])).toEqual(TRUNK)
  })
})
