import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'

import { api, wordsOf, type ClassDraft, type ClassFile, type ClassPage, type TrackMoved } from '@/api/client'
import { useLatest } from '@/composables/useLatest'
import { useOwnEquipment } from '@/stores/equipment'
import type { Item, Schema } from './schema'

const PATIENCE_MS = 250 // while somebody types

/**
 * A class that is being changed, as a form or as text: what is changed in one is read by the server, and stands in the other.
 *
 * `id`: of the class, or "new"; `job`: a job that is looked at too, "" for none.
 */
export function useClassDraft(id: string, job: string) {
  const own = useOwnEquipment()
  const values = shallowRef<Item | null>(null)
  const text = ref('')
  const kept = ref('') // as it was saved last, as text
  const page = shallowRef<ClassPage | null>(null)
  const moved = shallowRef<readonly TrackMoved[]>([])
  const schema = shallowRef<Schema | null>(null)
  const trouble = ref('') // with saving or loading
  const past: Item[] = [] // to undo
  const undoable = ref(0)
  const { problem, ask } = useLatest()
  let timer: ReturnType<typeof setTimeout> | undefined
  let changes = 0 // an answer about an earlier state says nothing of a later one

  function show(draft: ClassDraft) {
    page.value = draft.page
    values.value = draft.document
    text.value = draft.text
  }

  function look(content: Partial<ClassFile>, keepText = false) {
    clearTimeout(timer)
    const mine = ++changes
    timer = setTimeout(() => {
      const file = { name: page.value?.label ?? 'this class', ...content }
      void ask(
        async () => ({
          draft: await api.previewClass(file),
          tracks: job ? await api.tryClass(job, file) : [],
        }),
        ({ draft, tracks }) => {
          if (mine !== changes) return
          show(keepText ? { ...draft, text: text.value } : draft)
          moved.value = tracks
        },
      )
    }, PATIENCE_MS)
  }
  onScopeDispose(() => clearTimeout(timer))

  function remember() {
    if (values.value) past.push(values.value)
    undoable.value = past.length
  }

  /** Another value anywhere in the form. */
  function change(now: Item) {
    remember()
    values.value = now
    look({ document: now })
  }

  /** Another text. */
  function type(now: string) {
    remember()
    text.value = now
    look({ text: now }, true)
  }

  function undo() {
    const before = past.pop()
    undoable.value = past.length
    if (!before) return
    values.value = before
    look({ document: before })
  }

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
      remember()
      show(await api.builtInDraft(classId))
      problem.value = ''
    })

  const save = () =>
    attempt(async () => {
      await own.save([{ name: page.value?.label ?? 'this class', text: text.value }])
      kept.value = text.value
    })

  /** Where in the form something is wrong, as ids and names of fields; "" where the problem names no place. */
  const wrongAt = computed(() => /^[^:]*: ([\w.#-]+): /.exec(problem.value)?.[1] ?? '')
  const isSaved = computed(() => text.value !== '' && text.value === kept.value)

  void attempt(async () => {
    schema.value = JSON.parse(await api.classSchema()) as Schema
    if (id === 'new') return
    show(await api.classDraft(id))
    kept.value = text.value
  })
  watch(problem, (words) => {
    if (!words) trouble.value = ''
  })
  return {
    values,
    text,
    page,
    moved,
    schema,
    problem,
    wrongAt,
    trouble,
    isSaved,
    undoable,
    change,
    type,
    undo,
    beginFrom,
    save,
  }
}
