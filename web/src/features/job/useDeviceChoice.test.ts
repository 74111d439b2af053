import { expect, it } from 'vitest'

import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useDeviceChoice } from './useDeviceChoice'

const BOX = { id: 'my-box', label: 'My box', of: 'device' }
const TAKES = { kind: 'save-class', device_class: { id: 'my-box' } }

it('offers own classes first, brings one along once, and keeps what the job has', async () => {
  const asked = answering(({ path }) => {
    if (path === '/api/equipment') return { body: [{ page: BOX, takes: TAKES }] }
    if (path === '/api/catalogue')
      return {
        body: { classes: [{ id: 'ribbon', label: 'Ribbon', kind: 'microphone', group: 'microphone' }] },
      }
    return {
      body: path.endsWith('/classes')
        ? [{ id: 'their-box', label: 'Theirs', original: 'none', devices: [] }]
        : {},
    }
  })
  const plan = { classes: [{ id: 'their-box', label: 'Theirs' }] }
  const { made, edits } = onJob(useDeviceChoice, { plan })
  await settle()
  expect(made.kinds.value.map(([kind, classes]) => [kind, classes.map(({ id }) => id)])).toEqual([
    ['My equipment', ['their-box', 'my-box']],
    ['microphone', ['ribbon']],
  ])
  await made.add('my-box', '')
  await made.add('their-box', 'B')
  expect(edits.map(({ kind }) => kind)).toEqual(['save-class', 'add-device', 'add-device'])
  await made.renew('my-box')
  expect(edits.at(-1)).toEqual(TAKES)
  await made.keep('their-box')
  expect(
    asked.some(({ method, path }) => method === 'POST' && path.endsWith('/classes/their-box/keep')),
  ).toBe(true)
  expect(made.copies.value.map(({ id }) => id)).toEqual(['their-box'])
})
