import { onScopeDispose } from 'vue'

import { api, type Recording } from '@/api/client'

export const LOOK_MS = 400

export const isOver = ({ state }: Recording) => !['waiting', 'reading'].includes(state)

/** Waits until a recording is measured; one that is not, by whatever reason, is an error in its own words. */
export function useMeasured() {
  let isGone = false
  onScopeDispose(() => (isGone = true))

  return async function measured(job: string, recording: Recording): Promise<Recording> {
    let now = recording
    while (!isOver(now) && !isGone) {
      await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
      now = await api.recording(job, recording.id)
    }
    if (now.state !== 'done') throw new Error(now.message || 'The recording was not measured.')
    return now
  }
}
