import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { effectScope, nextTick } from 'vue'

import { settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useClassText } from './useClassText'
import { useEquipment } from './useEquipment'

const PAGE = { id: 'my-box', label: 'My box', of: 'device', sockets: [], lines: [], facts: [] }
const file = (name: string, text: string) => ({ name, text: async () => text }) as unknown as File
const chosen = (...files: File[]) => ({ target: { files, value: 'x' } }) as unknown as Event

beforeEach(() => setActivePinia(createPinia()))

describe('useEquipment', () => {
  it('takes several files in at once, and says which one is wrong', async () => {
    let refused = false
    const asked = answering(({ method }) =>
      method === 'POST' && refused
        ? { status: 422, body: { detail: 'b.toml: label: is missing' } }
        : { body: method === 'POST' ? [{ page: PAGE }] : [] },
    )
    const { told, problem, takeIn } = effectScope().run(useEquipment)!
    await takeIn(chosen(file('a.toml', 'id = 1'), file('b.toml', 'id = 2')))
    await settle()
    const sent = asked.find(({ method }) => method === 'POST')?.body as { files: { name: string }[] }
    expect(sent.files.map(({ name }) => name)).toEqual(['a.toml', 'b.toml'])
    expect(told.value).toBe('Imported: My box')
    refused = true
    await takeIn(chosen(file('b.toml', '')))
    expect(problem.value).toBe('b.toml: label: is missing')
  })

  it('brings back what was removed', async () => {
    const asked = answering(({ method, path }) => ({
      body: path.endsWith('my-box') && method === 'GET' ? { text: 'id = "my-box"' } : [],
    }))
    const { gone, remove, undo } = effectScope().run(useEquipment)!
    await remove('my-box')
    expect(gone.value?.id).toBe('my-box')
    await undo()
    const saved = asked.find(({ method }) => method === 'POST')?.body
    expect(saved).toEqual({ files: [{ name: 'my-box.toml', text: 'id = "my-box"' }] })
    expect(gone.value).toBeNull()
  })
})

describe('useClassText', () => {
  it('reads what is typed, says what is wrong, and shows what it does to the job', async () => {
    vi.useFakeTimers()
    const asked = answering(({ path, body }) =>
      (body as { text?: string }).text === 'wrong'
        ? { status: 422, body: { detail: 'this class: label: is missing' } }
        : { body: path.endsWith('/try') ? [{ label: 'cam track L' }] : PAGE },
    )
    const { text, page, moved, problem } = effectScope().run(() => useClassText('new', 'j1'))!
    text.value = 'one'
    await nextTick()
    text.value = 'right'
    await vi.runAllTimersAsync()
    expect(asked.map(({ path }) => path)).toEqual(['/api/equipment/preview', '/api/jobs/j1/classes/try'])
    expect([page.value?.label, moved.value[0]?.label]).toEqual(['My box', 'cam track L'])
    text.value = 'wrong'
    await vi.runAllTimersAsync()
    expect(problem.value).toBe('this class: label: is missing')
    expect(page.value?.label).toBe('My box')
    vi.useRealTimers()
  })

  it('begins from a built-in class under a name of its own', async () => {
    answering(() => ({ body: { text: 'id = "ribbon"\nlabel = "Ribbon, passive"\n' } }))
    const { text, beginFrom } = effectScope().run(() => useClassText('new', ''))!
    await beginFrom('ribbon')
    expect(text.value).toBe('id = "my-ribbon"\nlabel = "My Ribbon, passive"\n')
  })

  it('is saved once it is saved', async () => {
    answering(({ path }) => ({
      body: path.includes('/api/equipment/my-box') ? { text: 'old' } : [{ page: PAGE }],
    }))
    const { text, kept, save } = effectScope().run(() => useClassText('my-box', ''))!
    await settle()
    expect(text.value).toBe('old')
    text.value = 'new'
    await save()
    expect(kept.value).toBe('new')
  })
})
