import { ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, wordsOf, type LinedUpPair } from '@/api/client'
import { useOwnEquipment } from '@/stores/equipment'

const isArchive = ({ name }: File) => name.toLowerCase().endsWith('.zip')

/** My equipment as a list: files taken in, several at once, and classes thrown out, which can be undone. */
export function useEquipment() {
  const own = useOwnEquipment()
  const router = useRouter()
  const pairs = shallowRef<readonly LinedUpPair[]>([])
  const problem = ref('')
  const told = ref('') // what was done last
  const gone = ref<{ id: string; text: string } | null>(null) // what was thrown out last

  async function attempt(action: () => Promise<unknown>) {
    problem.value = ''
    try {
      await action()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }

  /** For the event of a file field. */
  async function takeIn(event: Event) {
    const input = event.target as HTMLInputElement
    const files = [...(input.files ?? [])]
    input.value = ''
    if (!files.length) return
    await attempt(async () => {
      const saved = []
      for (const archive of files.filter(isArchive)) saved.push(...(await own.saveArchive(archive)))
      const plain = files.filter((file) => !isArchive(file))
      const read = plain.map(async (file) => ({ name: file.name, text: await file.text() }))
      if (plain.length) saved.push(...(await own.save(await Promise.all(read))))
      told.value = `Imported: ${saved.map(({ page }) => page.label).join(', ')}`
    })
  }

  const remove = (id: string) =>
    attempt(async () => {
      const { text } = await api.classDraft(id)
      await own.remove(id)
      gone.value = { id, text }
      told.value = ''
    })

  const undo = () =>
    attempt(async () => {
      const back = gone.value
      if (!back) return
      await own.save([{ name: `${back.id}.toml`, text: back.text }])
      gone.value = null
    })

  /** A job in which it can be tested. */
  const test = (id: string) =>
    attempt(async () => {
      const { job } = await api.testJob(id)
      await router.push({ name: 'gear-tests', params: { job } })
    })

  async function look() {
    pairs.value = await api.pairs()
  }
  const forget = (key: string) =>
    attempt(async () => {
      await api.forgetPair(key)
      await look()
    })

  void attempt(() => Promise.all([own.load(), look()]))
  return { own, pairs, problem, told, gone, takeIn, remove, undo, test, forget }
}
