import { onScopeDispose } from 'vue'

/**
 * Looks again and again, `wait` ms after the last look has ended, while `isWanted` says so, and never after the page that
 * asked has gone. `look` says itself what went wrong.
 */
export function usePolling(look: () => Promise<unknown>, wait: number, isWanted: () => boolean = () => true) {
  let timer: ReturnType<typeof setTimeout> | undefined
  let last: Promise<unknown> = Promise.resolve()
  let isGone = false

  /** Look once more, after a look that is under way: that may not have seen what has just been done. */
  async function now(): Promise<void> {
    clearTimeout(timer)
    const mine = last.then(() => (isGone ? null : look()))
    last = mine
    await mine
    if (last === mine) later()
  }

  /** Look again when the time has come, where that is wanted. */
  function later() {
    clearTimeout(timer)
    if (!isGone && isWanted()) timer = setTimeout(() => void (isWanted() && now()), wait)
  }

  onScopeDispose(() => {
    isGone = true
    clearTimeout(timer)
  })
  return { now, later }
}
