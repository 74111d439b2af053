import { ref, shallowRef } from 'vue'

import { wordsOf } from '@/api/connection'

/** What the program reads out of a file that is dropped in: one at a time, the newest stands. */
export function useReadFile<T>(read: (file: File) => Promise<T>) {
  const found = shallowRef<T | null>(null)
  const problem = ref('')
  const busy = ref(false)

  function clear() {
    found.value = null
    problem.value = ''
  }

  /** For the event of a file field. */
  async function take(event: Event) {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = '' // the same file can be read again
    if (!file || busy.value) return
    clear()
    busy.value = true
    try {
      found.value = await read(file)
    } catch (error) {
      problem.value = wordsOf(error)
    } finally {
      busy.value = false
    }
  }
  return { found, problem, busy, clear, take }
}
