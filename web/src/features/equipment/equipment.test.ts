import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { effectScope } from 'vue'

import { settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { fieldsOf, optionsOf } from './schema'
import { useClassDraft } from './useClassDraft'
import { useDatasheet } from './useDatasheet'
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
    const { last, problem, takeIn } = effectScope().run(useEquipment)!
    await takeIn(chosen(file('a.toml', 'id = 1'), file('b.toml', 'id = 2')))
    await settle()
    const sent = asked.find(({ method }) => method === 'POST')?.body as { files: { name: string }[] }
    expect(sent.files.map(({ name }) => name)).toEqual(['a.toml', 'b.toml'])
    expect(last.value?.words).toBe('Imported: My box.')
    refused = true
    await takeIn(chosen(file('b.toml', '')))
    expect(problem.value).toBe('b.toml: label: is missing')
  })

  it('brings back what was removed', async () => {
    const asked = answering(({ method, path }) => ({
      body: path.endsWith('my-box') && method === 'GET' ? { text: 'id = "my-box"' } : [],
    }))
    const { last, remove, undo } = effectScope().run(useEquipment)!
    await remove('my-box')
    expect(last.value?.words).toBe('my-box removed.')
    await undo()
    const saved = asked.find(({ method }) => method === 'POST')?.body
    expect(saved).toEqual({ files: [{ name: 'my-box.toml', text: 'id = "my-box"' }] })
    expect(last.value).toBeNull()
  })
})

const DRAFT = { text: 'as read', document: { id: 'my-box', label: 'My box' }, page: PAGE }

describe('useClassDraft', () => {
  const open = (id: string, job = '') => effectScope().run(() => useClassDraft(id, job))!

  it('reads what is changed, says where something is wrong, and shows what it does to the job', async () => {
    vi.useFakeTimers()
    const asked = answering(({ path, body }) => {
      if (path.includes('equipment-schema')) return { body: { properties: {} } }
      if ((body as { document?: { label?: string } }).document?.label === '')
        return { status: 422, body: { detail: 'My box: inputs.in1.label: is missing' } }
      return { body: path.endsWith('/try') ? [{ label: 'cam track L' }] : DRAFT }
    })
    const { values, text, page, moved, problem, wrongAt, change } = open('new', 'j1')
    change({ label: 'M' })
    change({ label: 'My box' })
    await vi.runAllTimersAsync()
    expect(asked.map(({ path }) => path).slice(1)).toEqual([
      '/api/equipment/preview',
      '/api/jobs/j1/classes/try',
    ])
    expect([page.value?.label, text.value, moved.value[0]?.label]).toEqual([
      'My box',
      'as read',
      'cam track L',
    ])
    change({ label: '' })
    await vi.runAllTimersAsync()
    expect(wrongAt.value).toBe('inputs.in1.label')
    expect(values.value).toEqual({ label: '' })
    expect(problem.value).toContain('is missing')
    vi.useRealTimers()
  })

  it('loses no change that is made while an earlier one is being read', async () => {
    vi.useFakeTimers()
    let answer = (): void => undefined
    answering(async ({ path, body }) => {
      if (path.includes('equipment-schema')) return { body: {} }
      if ((body as { document: { label: string } }).document.label === 'first')
        await new Promise<void>((done) => (answer = done))
      return { body: { ...DRAFT, document: (body as { document: object }).document } }
    })
    const { values, change } = open('new')
    change({ label: 'first' })
    await vi.advanceTimersByTimeAsync(300)
    change({ label: 'second' })
    answer()
    await vi.runAllTimersAsync()
    expect(values.value).toEqual({ label: 'second' })
    vi.useRealTimers()
  })

  it('leaves text as it is typed, and undoes', async () => {
    vi.useFakeTimers()
    answering(({ path }) => ({ body: path.includes('equipment-schema') ? {} : DRAFT }))
    const { values, text, undoable, beginFrom, type, change, undo } = open('new')
    await beginFrom('ribbon')
    type('as typed')
    await vi.runAllTimersAsync()
    expect([text.value, values.value?.label]).toEqual(['as typed', 'My box'])
    change({ label: 'Other' })
    expect(undoable.value).toBe(2)
    undo()
    expect(values.value).toEqual(DRAFT.document)
    vi.useRealTimers()
  })

  it('is saved once it is saved', async () => {
    const asked = answering(({ path }) => ({ body: path.includes('equipment-schema') ? {} : DRAFT }))
    const { isSaved, save, beginFrom } = open('new')
    await beginFrom('ribbon')
    expect(isSaved.value).toBe(false)
    await save()
    expect(isSaved.value).toBe(true)
    const sent = asked.find(({ method, path }) => method === 'POST' && path === '/api/equipment')?.body
    expect(sent).toEqual({ files: [{ name: 'My box', text: 'as read' }] })
  })
})

describe('a form of a schema', () => {
  it('knows what each field is', () => {
    const figure = { anyOf: [{ type: 'number' }, { type: 'object', properties: {} }] }
    const defs = {
      Mode: { type: 'object', properties: { gain: {} } },
      Kind: { type: 'string', enum: ['a', 'b'] },
    }
    const schema = {
      properties: {
        kind: { $ref: '#/$defs/Kind', title: 'Kind' },
        modes: { type: 'array', items: { $ref: '#/$defs/Mode' } },
        level: { anyOf: [figure, { type: 'null' }] },
        mode: { anyOf: [{ $ref: '#/$defs/Mode' }, { type: 'null' }] },
        rates: { type: 'array', items: { type: 'integer' } },
        kinds: { type: 'array', items: { $ref: '#/$defs/Kind' } },
        feeds: { type: 'object', additionalProperties: { type: 'string' } },
        on: { type: 'boolean' },
        plug: { type: 'string', oneOf: [{ const: 'xlr3', title: 'XLR-3' }] },
      },
    }
    expect(fieldsOf(schema, defs).map(({ shape, isOptional }) => [shape, isOptional])).toEqual([
      ['choice', false],
      ['list', false],
      ['figure', true],
      ['group', true],
      ['numbers', false],
      ['choices', false],
      ['map', false],
      ['switch', false],
      ['choice', false],
    ])
    expect(optionsOf(schema.properties.plug)).toEqual([['xlr3', 'XLR-3']])
    expect(fieldsOf(schema, defs)[0]?.title).toBe('Kind')
  })
})

describe('useDatasheet', () => {
  const CAMERA = {
    label: 'My camera',
    inputs: [{ id: 'mic', label: 'mic socket', modes: [{ id: 'mic', label: 'mic', signal: 'mic' }] }],
  }

  it('reads what a manual prints into the position that is chosen', async () => {
    const asked = answering(() => ({ body: { mode: { id: 'mic', label: 'mic', full_scale_dbu: 14 } } }))
    const taken: object[] = []
    const made = effectScope().run(() =>
      useDatasheet(
        () => CAMERA,
        (now) => taken.push(now),
      ),
    )!
    expect(made.positions.value.map(({ label }) => label)).toEqual(['mic socket, mic'])
    made.at.value = 'mic mic'
    Object.assign(made.sheet, { lowest_db: 10, highest_db: 70, most: 4 })
    expect(made.isReady.value).toBe(true)
    await made.apply()
    expect(asked[0]?.body).toMatchObject({ lowest_db: 10, most: 4, mode: { id: 'mic' } })
    expect(taken).toMatchObject([{ label: 'My camera', inputs: [{ modes: [{ full_scale_dbu: 14 }] }] }])
  })
})
