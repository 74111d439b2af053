import { describe, expect, it, vi } from 'vitest'

import { keyReader } from './useKeys'

describe('keys', () => {
  it('finds single keys and two-key words', () => {
    const [runs, undo] = [vi.fn(), vi.fn()]
    const read = keyReader({ 'g r': runs, u: undo })
    expect(read('g')).toBeNull()
    expect(read('r')).toBe(runs)
    expect(read('u')).toBe(undo)
    expect(read('r')).toBeNull()
  })
  it('forgets a first key that was left alone', () => {
    let time = 0
    const read = keyReader({ 'g r': () => undefined, r: () => undefined }, () => time)
    read('g')
    time = 5000
    expect(read('r')).not.toBeNull()
    expect(read('g')).toBeNull()
  })
})
