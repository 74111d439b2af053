import { describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'

import { changing } from '@/api/connection'
import { onJob, settle } from '@/testing/job'
import { answering, serve } from '@/testing/server'
import { useAttempt } from './useAttempt'
import { useBusyButtons } from './useBusyButtons'
import { useDevice } from './useDevice'
import { useLatest } from './useLatest'
import { useMeasured } from './useMeasured'
import { useOwnLeads } from './useOwnLeads'
import { useReadFile } from './useReadFile'
import { useWidth } from './useWidth'

const choose = (file: File) => ({ target: { files: [file], value: file.name } }) as unknown as Event

describe('useLatest', () => {
  it('takes the answer to the newest question alone, and none once it is left', async () => {
    const answers: ((text: string) => void)[] = []
    const scope = effectScope()
    const { busy, problem, ask } = scope.run(useLatest)!
    const taken: string[] = []
    const question = () => new Promise<string>((done) => answers.push(done))
    for (let turn = 0; turn < 3; turn += 1) void ask(question, (text) => taken.push(text))
    expect(busy.value).toBe(true)
    answers[2]!('third')
    answers[0]!('first')
    await settle()
    expect([taken, busy.value, problem.value]).toEqual([['third'], false, ''])
    void ask(question, (text) => taken.push(text))
    scope.stop()
    answers[3]!('too late')
    await settle()
    expect(taken).toEqual(['third'])
  })

  it('says what was wrong with it until something goes well', async () => {
    const { problem, ask } = effectScope().run(useLatest)!
    await ask(
      () => Promise.reject(new Error('no')),
      () => undefined,
    )
    expect(problem.value).toBe('Error: no')
    await ask(
      () => Promise.resolve(1),
      () => undefined,
    )
    expect(problem.value).toBe('')
  })
})

describe('useReadFile', () => {
  it('gives what was read, and frees the field for the same file again', async () => {
    const { found, busy, take } = useReadFile((file) => Promise.resolve(file.name))
    const event = choose(new File(['x'], 'take.wav'))
    const reading = take(event)
    expect([busy.value, (event.target as HTMLInputElement).value]).toEqual([true, ''])
    await reading
    expect([busy.value, found.value]).toEqual([false, 'take.wav'])
  })

  it('shows nothing of the last file where the next cannot be read', async () => {
    const { found, problem, take } = useReadFile((file) =>
      file.size ? Promise.resolve('sound') : Promise.reject(new Error('empty')),
    )
    await take(choose(new File(['x'], 'good.wav')))
    await take(choose(new File([], 'bad.wav')))
    expect([found.value, problem.value]).toEqual([null, 'Error: empty'])
  })
})

describe('useDevice', () => {
  it('asks for a device that the job has, and for no other', async () => {
    const asked = answering(({ path }) => ({ body: { label: path } }))
    const device = ref('bag')
    const { made: detail, moveOn } = onJob(() => useDevice(device), { devices: [{ id: 'bag' }] })
    await settle()
    expect(detail.value?.label).toBe('/api/jobs/j/devices/bag')
    device.value = 'gone'
    await settle()
    expect(detail.value).toBeNull()
    device.value = 'bag'
    moveOn()
    await settle()
    expect(asked).toHaveLength(2)
  })
})

describe('useOwnLeads', () => {
  const LEAD = { label: 'Cross', sending: {}, receiving: {}, ways: {} } as never

  it('saves a cable and gives its id', async () => {
    const { made, edits } = onJob(useOwnLeads, { plan: { leads: [{ id: 'own-cross' }] } })
    expect(await made.save(LEAD)).toBe('own-cross')
    expect(await made.save(LEAD, 'own-other')).toBe('own-other')
    expect(edits.map(({ kind }) => kind)).toEqual(['draw-lead', 'draw-lead'])
  })

  it('says why a cable does not fit', async () => {
    serve({ status: 422, body: { code: 'input', detail: 'Cross does not fit cable 2' } })
    const { made, job, edits } = onJob(useOwnLeads)
    expect(await made.use('own-cross', 'run-2')).toBe(false)
    expect([job.problem, edits.length]).toEqual(['Cross does not fit cable 2', 0])
  })
})

describe('useBusyButtons', () => {
  it('keeps a button from doing twice what is not answered yet', async () => {
    class Button {
      dataset: Record<string, string> = {}
      attributes = new Map<string, string>()
      setAttribute = (name: string, value: string) => this.attributes.set(name, value)
      removeAttribute = (name: string) => this.attributes.delete(name)
      closest = () => this
    }
    let press: (event: unknown) => void = () => undefined
    vi.stubGlobal('Element', Button)
    vi.stubGlobal('window', {
      addEventListener: (_: string, listener: typeof press) => (press = listener),
      removeEventListener: vi.fn(),
    })
    const scope = effectScope()
    scope.run(useBusyButtons)
    const button = new Button()
    const click = () => {
      const event = { target: button, preventDefault: vi.fn(), stopImmediatePropagation: vi.fn() }
      press(event)
      return event.stopImmediatePropagation
    }
    let answer: () => void = () => undefined
    expect(click()).not.toHaveBeenCalled()
    const change = changing(() => new Promise<void>((done) => (answer = done)))
    await settle()
    expect(button.attributes.get('aria-busy')).toBe('true')
    expect(click()).toHaveBeenCalled()
    answer()
    await change
    await nextTick()
    expect(button.attributes.has('aria-busy')).toBe(false)
    scope.stop()
    vi.unstubAllGlobals()
  })
})

describe('useAttempt', () => {
  it('does one thing at a time, and says what was wrong with the last', async () => {
    const { problem, isBusy, attempt } = useAttempt()
    let finish: (words: string) => void = () => undefined
    const first = attempt(() => new Promise<string>((done) => (finish = done)))
    expect([isBusy.value, await attempt(() => Promise.resolve('second'))]).toEqual([true, null])
    finish('first')
    expect([await first, isBusy.value]).toEqual(['first', false])
    expect([await attempt(() => Promise.reject(new Error('no'))), problem.value]).toEqual([null, 'Error: no'])
    await attempt(() => Promise.resolve(1))
    expect(problem.value).toBe('')
  })
})

describe('useMeasured', () => {
  const recording = (state: string, message = '') => ({ id: 'r', state, message }) as never

  it('waits until a recording is measured, and throws what became of it else', async () => {
    const asked = serve({ body: recording('reading') }, { body: recording('done') })
    const { made, stop } = onJob(useMeasured)
    vi.useFakeTimers()
    const waiting = made('j', recording('waiting'))
    await vi.advanceTimersByTimeAsync(1000)
    vi.useRealTimers()
    expect([(await waiting).state, asked.length]).toEqual(['done', 2])
    await expect(made('j', recording('failed', 'no sound in it'))).rejects.toThrow('no sound in it')
    stop()
  })
})

describe('useWidth', () => {
  it('follows an element while it is there', async () => {
    let tell: (entries: { contentRect: { width: number } }[]) => void = () => undefined
    const observer = { observe: vi.fn(), unobserve: vi.fn(), disconnect: vi.fn() }
    vi.stubGlobal('ResizeObserver', function (told: typeof tell) {
      tell = told
      return observer
    })
    const element = ref<HTMLElement | null>(null)
    const scope = effectScope()
    const width = scope.run(() => useWidth(element))!
    element.value = {} as HTMLElement
    await nextTick()
    expect([width.value, observer.observe.mock.calls.length]).toEqual([0, 1])
    tell([{ contentRect: { width: 320 } }])
    expect(width.value).toBe(320)
    element.value = null
    await nextTick()
    scope.stop()
    expect([observer.unobserve.mock.calls.length, observer.disconnect.mock.calls.length]).toEqual([1, 1])
  })
})
