import { describe, expect, it } from 'vitest'
import { ref } from 'vue'

import type { Recording } from '@/api/client'
import { onJob, settle } from '@/testing/job'
import { answering, serve } from '@/testing/server'
import { useCompare } from './useCompare'
import { useLineUp } from './useLineUp'
import { useRecordings } from './useRecordings'

const step = (track: string, state: string, warning = '') => ({ track, state, warning })
const recording = (id: string, state: string, option = '') => ({ id, state, asked: { run: 'run-2', option } })

describe('useLineUp', () => {
  const STEPS = [step('cam.L', 'done'), step('cam.R', 'open', 'clips'), step('film.L', 'open')]

  it('opens what is wanted, else the first that can be done', async () => {
    answering(({ path }) => ({ body: path.endsWith('voices') ? [] : STEPS }))
    const wanted = ref('')
    const { made } = onJob(() => useLineUp(wanted))
    await settle()
    expect(made.open.value?.track).toBe('film.L')
    wanted.value = 'cam.L'
    expect(made.open.value?.track).toBe('cam.L')
  })

  it('saves a reading by the edits that the server makes of it', async () => {
    const asked = answering(({ path }) => ({
      body: path.endsWith('reading') ? { edits: [{ kind: 'take-line-up' }] } : [],
    }))
    const { made, edits } = onJob(() => useLineUp(ref('')))
    await made.take('cam.L', -20.5, 'meter')
    expect(asked.at(-1)?.body).toEqual({ read_dbfs: -20.5, read_from: 'meter' })
    expect(edits.map(({ kind }) => kind)).toEqual(['take-line-up'])
  })

  it('says what is wrong with a reading', async () => {
    answering(({ path }) =>
      path.endsWith('reading')
        ? { status: 422, body: { code: 'input', detail: 'a tone does not reach this track' } }
        : { body: [] },
    )
    const { made, edits } = onJob(() => useLineUp(ref('')))
    await settle()
    await made.take('bag.1', -20, 'meter')
    expect([made.problem.value, edits.length]).toEqual(['a tone does not reach this track', 0])
  })
})

describe('useRecordings', () => {
  it('looks until a recording is measured, and opens it then', async () => {
    const lists = [[recording('a', 'reading')], [recording('a', 'done')]]
    answering(({ path }) => ({
      body: path.endsWith('/a') ? { ...recording('a', 'done'), result: { bits: 24 } } : (lists.shift() ?? []),
    }))
    const { made, stop } = onJob(useRecordings)
    await settle()
    expect([made.recordings.value.length, made.result.value]).toEqual([1, null])
    await made.look()
    expect(made.result.value).toEqual({ bits: 24 })
    stop()
  })

  it('closes what is removed, and keeps the list where that fails', async () => {
    let isThere = true
    answering(({ method, path }) => {
      if (method === 'DELETE')
        return isThere ? { status: 409, body: { code: 'busy', detail: 'busy' } } : { body: {} }
      return { body: path.endsWith('/a') ? recording('a', 'done') : isThere ? [recording('a', 'done')] : [] }
    })
    const { made, stop } = onJob(useRecordings)
    await made.open('a')
    await made.remove('a')
    expect([made.problem.value, made.opened.value?.id]).toEqual(['busy', 'a'])
    isThere = false
    await made.remove('a')
    expect([made.problem.value, made.opened.value]).toEqual(['', null])
    stop()
  })
})

describe('useCompare', () => {
  const OPTIONS = [
    { id: 'as-it-is', label: 'as it is' },
    { id: 'trim', label: 'trim' },
  ]

  it('takes the newest recording of each option, and none that was emptied by hand', async () => {
    answering(() => ({ body: OPTIONS }))
    const recordings = ref([
      recording('new', 'done', 'trim'),
      recording('old', 'done', 'trim'),
    ] as Recording[])
    const { made } = onJob(() => useCompare(ref('run-2'), recordings))
    await made.load()
    expect(made.chosen).toEqual({ 'as-it-is': '', trim: 'new' })
    made.chosen.trim = ''
    recordings.value = [recording('newer', 'done', 'trim'), ...recordings.value] as Recording[]
    await settle()
    expect(made.chosen.trim).toBe('')
  })

  it('compares only the options that have a recording', async () => {
    const asked = answering(({ path }) => ({ body: path.endsWith('/options') ? OPTIONS : [] }))
    const { made } = onJob(() =>
      useCompare(ref('run-2'), ref([recording('a', 'done', 'trim')] as Recording[])),
    )
    await made.load()
    await made.compare()
    expect(asked.at(-1)?.body).toEqual({ recordings: { trim: 'a' } })
  })

  it('forgets what was compared when another cable is chosen', async () => {
    serve({ body: OPTIONS })
    const run = ref('run-2')
    const { made } = onJob(() => useCompare(run, ref([])))
    await made.load()
    run.value = 'run-3'
    expect(made.options.value).toEqual([])
  })
})
