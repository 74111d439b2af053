import { ref } from 'vue'

import { api, wordsOf } from '@/api/client'
import { hasSoundInput, takeSound } from '@/composables/soundInput'
import type { Tap } from '@/composables/useLogbook'

const LISTEN_S = 2 // fifty frames, of which a reader wants some that follow each other

/** Timecode that the log counts on from: typed, or read from what comes in through the sound input. */
export function useReadTimecode(job: () => string, tap: (entry: Tap) => void) {
  const problem = ref('')
  const isListening = ref(false)

  const set = (timecode: string, made = new Date()) =>
    tap({ act: 'clock', timecode, made: made.toISOString() })

  async function listen() {
    if (isListening.value) return
    problem.value = ''
    isListening.value = true
    try {
      const { sound, ended } = await takeSound(LISTEN_S)
      const heard = await api.hearTimecode(job(), sound)
      set(heard.timecode, ended)
    } catch (error) {
      problem.value =
        error instanceof DOMException
          ? 'The browser did not hand over the sound input: allow it, and look that an input is plugged in.'
          : wordsOf(error)
    } finally {
      isListening.value = false
    }
  }
  return { problem, isListening, canListen: hasSoundInput(), set, listen }
}
