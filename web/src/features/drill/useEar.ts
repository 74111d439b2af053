import { shallowRef, watch } from 'vue'

import { api, type EarSession, type EarTasks } from '@/api/client'
import { newId } from '@/api/ids'
import { useAttempt } from '@/composables/useAttempt'
import { useLatest } from '@/composables/useLatest'
import { useSettings } from '@/stores/settings'

/** Ear training: what can be listened for, and a session that is under way. */
export function useEar(id: () => string) {
  const settings = useSettings()
  const tasks = shallowRef<EarTasks>([])
  const session = shallowRef<EarSession | null>(null)
  const { problem, isBusy, attempt } = useAttempt()
  const reading = useLatest()

  /** The id of a new session. */
  const begin = async (task: EarSession['task']) =>
    (await attempt(() => api.beginEar(newId(), task, settings.who)))?.id ?? null
  async function answer(which: number) {
    const now = session.value
    if (!now || now.threshold_db !== null) return
    session.value = (await attempt(() => api.answerEar(now.id, which, now.trial))) ?? session.value
  }

  watch(
    id,
    (now) => {
      session.value = null
      problem.value = ''
      if (now)
        void reading.ask(
          () => api.ear(now),
          (found) => (session.value = found),
        )
      else
        void reading.ask(
          () => api.earTasks(),
          (found) => (tasks.value = found),
        )
    },
    { immediate: true },
  )
  watch(reading.problem, (words) => (problem.value = words))
  return { tasks, session, problem, isBusy, begin, answer }
}
