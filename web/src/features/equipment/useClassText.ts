import { onScopeDispose, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type ClassPage, type TrackMoved } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useOwnEquipment } from '@/stores/equipment'

const PATIENCE_MS = 250 // while somebody types

/**
 * A class as text, with what the program reads in it at once, and what it does to a job that uses it.
 *
 * `id`: of the class, or "new"; `job`: that is looked at, "" for none.
 */
export function useClassText(id: string, job: string) {
  const own = useOwnEquipment()
  const text = ref('')
  const kept = ref('') // as it was saved last
  const page = shallowRef<ClassPage | null>(null)
  const moved = shallowRef<readonly TrackMoved[]>([])
  const trouble = ref('') // with saving or loading
  const { problem, busy, ask } = useLatest()
  let timer: ReturnType<typeof setTimeout> | undefined

  const file = () => ({ name: page.value ? `${page.value.id}.toml` : 'this class', text: text.value })

  function look() {
    void ask(
      async () => ({
        found: await api.previewClass(file()),
        tracks: job ? await api.tryClass(job, file()) : [],
      }),
      ({ found, tracks }) => {
        page.value = found
        moved.value = tracks
      },
    )
  }
  watch(text, (now) => {
    clearTimeout(timer)
    if (now.trim()) timer = setTimeout(look, PATIENCE_MS)
  })
  onScopeDispose(() => clearTimeout(timer))

  async function attempt(action: () => Promise<unknown>) {
    trouble.value = ''
    try {
      await action()
    } catch (error) {
      trouble.value = wordsOf(error)
    }
  }

  /** A built-in class to begin from, under a name of one's own. */
  const beginFrom = (classId: string) =>
    attempt(async () => {
      const found = await api.builtInText(classId)
      text.value = found.text
        .replace(/^id = "(.*)"$/m, 'id = "my-$1"')
        .replace(/^label = "(.*)"$/m, 'label = "My $1"')
    })

  const save = () =>
    attempt(async () => {
      await own.save([file()])
      kept.value = text.value
    })

  if (id !== 'new')
    void attempt(async () => {
      text.value = kept.value = (await api.classText(id)).text
    })
  return { text, kept, page, moved, problem, trouble, busy, beginFrom, save }
}
