import { describe, expect, it } from 'vitest'

import type { GearTest } from '@/api/client'
import { onPage, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useGearTests } from './useGearTests'

const TESTS = [
  { id: 'cam lowest', device: 'cam', device_label: 'Cam', kind: 'lowest' },
  { id: 'cam meter', device: 'cam', device_label: 'Cam', kind: 'meter' },
  { id: 'bag lowest', device: 'bag', device_label: 'Bag', kind: 'lowest' },
] as GearTest[]
const FOUND = {
  sentence: 'The lowest position is off.',
  class_id: 'own-cam',
  edits: [{ kind: 'save-class' }],
}

function page(original: 'same' | 'changed', answerStatus = 200) {
  const asked = answering(({ path }) => {
    if (path.endsWith('/gear-tests')) return { body: TESTS }
    if (path.endsWith('/answer'))
      return { status: answerStatus, body: answerStatus === 200 ? FOUND : { code: 'x', detail: 'no tone' } }
    if (path.endsWith('/classes')) return { body: [{ id: 'own-cam', original }] }
    if (path.includes('/simulate')) return { body: { id: 'r', state: 'done', asked: { shown: [-19] } } }
    return { body: {} }
  })
  return { asked, ...onPage(useGearTests) }
}
const sent = (asked: { method: string; path: string }[]) =>
  asked.filter(({ method }) => method !== 'GET').map(({ path }) => path.replace('/api/jobs/j/', ''))

describe('useGearTests', () => {
  it('lists the tests by device, and keeps what an answer finds in the job and in My equipment', async () => {
    const { made, asked, edits, leave } = page('same')
    await settle()
    expect(made.devices.value.map(({ label, tests }) => [label, tests.length])).toEqual([
      ['Cam', 2],
      ['Bag', 1],
    ])
    await made.answer(TESTS[0]!, { yes: true })
    expect(edits).toEqual(FOUND.edits)
    expect(sent(asked)).toEqual(['gear-tests/answer', 'classes/own-cam/keep'])
    expect(made.told.value?.words).toBe('The lowest position is off. Kept in My equipment.')
    leave()
  })

  it('leaves My equipment alone where somebody has changed the original, or a device was simulated', async () => {
    const changed = page('changed')
    await settle()
    await changed.made.answer(TESTS[0]!, { yes: true })
    expect([sent(changed.asked), changed.made.told.value?.words]).toEqual([
      ['gear-tests/answer'],
      expect.stringContaining('another version'),
    ])
    changed.leave()
    const { made, asked, leave } = page('same')
    await settle()
    await made.simulate(TESTS[1]!)
    expect(asked.find(({ path }) => path.endsWith('/answer'))?.body).toMatchObject({
      recording: 'r',
      value: -19,
    })
    expect([sent(asked).includes('classes/own-cam/keep'), made.told.value?.words]).toEqual([
      false,
      expect.stringContaining('in this job alone'),
    ])
    leave()
  })

  it('says at the test what was wrong with its answer', async () => {
    const { made, edits, leave } = page('same', 422)
    await settle()
    await made.answer(TESTS[0]!, { yes: false })
    expect([made.wrong.value?.test, made.busy.value, edits]).toEqual(['cam lowest', '', []])
    expect(made.wrong.value?.words).toContain('no tone')
    leave()
  })
})
