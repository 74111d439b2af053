import { ref, watch } from 'vue'

import { api, wordsOf, type Described } from '@/api/client'

/** What a line, or a table, would put into the trunk: shown before anything is kept. */
export function useTrunkLine(
  add: (line: string) => Promise<boolean>,
  read: (text: string) => Promise<boolean>,
) {
  const line = ref('')
  const means = ref<readonly Described[]>([])
  const holds = ref<readonly Described[]>([])
  const problem = ref('')
  let table = ''
  let asked = 0

  watch(line, async (text) => {
    const mine = (asked += 1)
    problem.value = ''
    if (!text.trim()) return void (means.value = [])
    try {
      const found = await api.previewTrunk(text)
      if (mine === asked) means.value = found
    } catch (error) {
      if (mine !== asked) return
      means.value = []
      problem.value = wordsOf(error)
    }
  })
  async function put() {
    if (means.value.length && (await add(line.value))) line.value = ''
  }
  async function look(file: File) {
    problem.value = ''
    holds.value = []
    try {
      table = await file.text()
      holds.value = await api.previewTrunkTable(table)
    } catch (error) {
      problem.value = `${file.name}: ${wordsOf(error)}`
    }
  }
  async function take() {
    if (await read(table)) holds.value = []
  }
  return { line, means, holds, problem, put, look, take }
}
