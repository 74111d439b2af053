import { computed, ref } from 'vue'

import { api, wordsOf } from '@/api/client'
import { useFetched } from '@/composables/useFetched'

const FAULTS = [null, 'open', 'shorted', 'swapped', 'leg-lost'] as const
const key = (near: string, far: string) => `${near} ${far}`

/** A cable under the tester: what its class has, what is shown, and what came of it. */
export function useCableTest(piece: () => string, looked: () => Promise<boolean>) {
  const test = useFetched(piece, api.cableTest)
  const shown = ref<ReadonlySet<string>>(new Set())
  const result = ref<string | null>(null)
  const problem = ref('')
  const right = computed(() => new Set(test.value?.right.map(({ near, far }) => key(near, far))))

  function toggle(near: string, far: string) {
    const next = new Set(shown.value)
    if (!next.delete(key(near, far))) next.add(key(near, far))
    shown.value = next
  }
  async function attempt(action: () => Promise<void>) {
    problem.value = ''
    try {
      await action()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  const keep = (found: ReadonlySet<string>) =>
    attempt(async () => {
      const pairs = [...found].map((one) => {
        const [near = '', far = ''] = one.split(' ')
        return { near, far }
      })
      result.value = (await api.testPiece(piece(), pairs)).fault
      await looked()
    })
  const standIn = () =>
    attempt(async () => {
      const fault = FAULTS[Math.floor(Math.random() * FAULTS.length)] ?? null
      const found = await api.standInTest(piece(), fault, Math.floor(Math.random() * 1000))
      shown.value = new Set(found.map(({ near, far }) => key(near, far)))
      result.value = null
    })
  const isRight = (near: string, far: string) => right.value.has(key(near, far))
  const isShown = (near: string, far: string) => shown.value.has(key(near, far))
  return { test, shown, right, result, problem, toggle, keep, standIn, isRight, isShown }
}
