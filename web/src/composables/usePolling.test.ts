import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'

import { usePolling } from './usePolling'

describe('looking again and again', () => {
  beforeEach(() => void vi.useFakeTimers())

  it('ends with the page, though a look was under way when it was left', async () => {
    const scope = effectScope()
    let answer = () => {}
    const look = vi.fn(() => new Promise<void>((done) => (answer = done)))
    const polling = scope.run(() => usePolling(look, 100))!
    void polling.now()
    await vi.advanceTimersByTimeAsync(0)
    scope.stop()
    answer()
    await vi.advanceTimersByTimeAsync(10_000)
    expect(look).toHaveBeenCalledTimes(1)
  })

  it('looks while it is wanted, and once more after a look that is under way', async () => {
    const scope = effectScope()
    let isWanted = true
    const look = vi.fn(() => new Promise<void>((done) => setTimeout(done, 50)))
    const polling = scope.run(() => usePolling(look, 100, () => isWanted))!
    void polling.now()
    void polling.now()
    await vi.advanceTimersByTimeAsync(100)
    expect(look).toHaveBeenCalledTimes(2)
    await vi.advanceTimersByTimeAsync(150)
    expect(look).toHaveBeenCalledTimes(3)
    isWanted = false
    await vi.advanceTimersByTimeAsync(10_000)
    expect(look).toHaveBeenCalledTimes(3)
    polling.later()
    await vi.advanceTimersByTimeAsync(10_000)
    expect(look).toHaveBeenCalledTimes(3)
    scope.stop()
  })
})
