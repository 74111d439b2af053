import { onScopeDispose, watch } from 'vue'

import { addresses } from '@/api/addresses'
import type { News } from '@/api/client'
import { useJob } from '@/stores/job'

const AGAIN_MS = 2000

/**
 * Changes of the open job as they happen, while the window is seen: a browser keeps but six connections to one place,
 * and a window that comes back looks first.
 */
export function useNews() {
  const job = useJob()
  let source: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined

  function close() {
    clearTimeout(timer)
    source?.close()
    source = undefined
  }

  function open() {
    close()
    const id = job.newest?.job
    if (id === undefined || document.hidden) return
    const opened = new EventSource(addresses.news(id))
    source = opened
    opened.onmessage = (message: MessageEvent<string>) => job.hear(JSON.parse(message.data) as News)
    // The browser tries again by itself where nobody answers, but not where it was refused.
    opened.onerror = () => {
      if (opened.readyState === EventSource.CLOSED) timer = setTimeout(open, AGAIN_MS)
    }
  }

  watch(() => job.newest?.job, open, { immediate: true })
  document.addEventListener('visibilitychange', open)
  onScopeDispose(() => {
    document.removeEventListener('visibilitychange', open)
    close()
  })
}
