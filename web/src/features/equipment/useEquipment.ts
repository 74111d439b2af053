import { ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'

import { api, wordsOf, type LinedUpPair, type OwnClass } from '@/api/client'
import { useOwnEquipment } from '@/stores/equipment'

const isArchive = ({ name }: File) => name.toLowerCase().endsWith('.zip')

/** My equipment as a list: files taken in, several at once, and classes thrown out; what was done last can be undone. */
export function useEquipment() {
  const own = useOwnEquipment()
  const router = useRouter()
  const pairs = shallowRef<readonly LinedUpPair[]>([])
  const problem = ref('')
  const last = shallowRef<{ words: string; undo: () => Promise<unknown> } | null>(null) // what was done last

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
      const known = new Set(own.classes?.map(({ page }) => page.id))
      const before = known.size ? await api.archive() : null // what is replaced can come back
      const saved: OwnClass[] = []
      for (const archive of files.filter(isArchive)) saved.push(...(await own.saveArchive(archive)))
      const plain = files.filter((file) => !isArchive(file))
      const read = plain.map(async (file) => ({ name: file.name, text: await file.text() }))
      if (plain.length) saved.push(...(await own.save(await Promise.all(read))))
      const undo = async () => {
        for (const { page } of saved) if (!known.has(page.id)) await own.remove(page.id)
        if (before) await own.saveArchive(new File([before], 'as it was.zip'))
      }
      last.value = { words: `Imported: ${saved.map(({ page }) => page.label).join(', ')}.`, undo }
    })
  }

  const remove = (id: string) =>
    attempt(async () => {
      const { text } = await api.classDraft(id)
      await own.remove(id)
      last.value = { words: `${id} removed.`, undo: () => own.save([{ name: `${id}.toml`, text }]) }
    })

  const undo = () =>
    attempt(async () => {
      await last.value?.undo()
      last.value = null
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
  return { own, pairs, problem, last, takeIn, remove, undo, test, forget }
}
