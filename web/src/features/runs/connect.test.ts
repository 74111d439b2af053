import { describe, expect, it } from 'vitest'

import { findingGroups, verdictWords } from '@/ui/findingGroups'
import { onJob, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useConnect } from './useConnect'

describe('useConnect', () => {
  it('asks once both sockets are chosen, and begins anew when the cable is there', async () => {
    const asked = answering(({ method }) =>
      method === 'GET'
        ? { body: [{ device: 'boom' }] }
        : { body: { proposals: [{ edits: [{ kind: 'connect' }] }] } },
    )
    const { made, edits } = onJob(useConnect)
    await settle()
    made.from.value = 'boom out'
    await settle()
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([])
    made.to.value = 'bag in1'
    await settle()
    expect(asked.at(-1)?.body).toEqual({
      sending: { device: 'boom', port: 'out' },
      receiving: { device: 'bag', port: 'in1' },
      length_m: null,
    })
    await made.take(made.answer.value!.proposals[0]!)
    expect([edits.length, made.from.value, made.to.value]).toEqual([1, '', ''])
  })
})

describe('findings in groups', () => {
  const finding = (severity: string) => ({ severity }) as never

  it('come gravest first, and say whether one can shoot', () => {
    const some = [finding('note'), finding('stop'), finding('caution'), finding('stop')]
    expect(findingGroups(some).map(({ title, findings }) => [title, findings.length])).toEqual([
      ['Before you can shoot', 2],
      ['To decide', 1],
      ['Good to know', 1],
    ])
    expect(verdictWords(some)).toMatch('Not ready: 2 problems')
    expect(verdictWords([finding('caution')])).toBe('Ready, once you have decided one thing')
    expect(verdictWords([])).toMatch('Ready: record a test')
  })
})
