import { describe, expect, it } from 'vitest'

import type { FileTask } from '@/api/client'
import { onPage, settle } from '@/testing/job'
import { answering } from '@/testing/server'
import { useDayFiles } from './useDayFiles'

describe('useDayFiles', () => {
  it('shows what is read, begins and ends what takes long, and says what was wrong', async () => {
    const read = { id: 't', state: 'reading', folder: '/day' }
    const asked = answering(({ method, path }) => {
      if (method === 'GET') return { body: { read, copies: null, played: null } }
      return path.endsWith('/copies')
        ? { status: 422, body: { code: 'x', detail: 'no such folder' } }
        : { body: {} }
    })
    const { made, leave } = onPage(useDayFiles)
    await settle()
    expect([made.isBusy.value, made.isOn(read as FileTask)]).toEqual([true, true])
    await made.copy('/nowhere', '', false)
    expect(made.problem.value).toContain('no such folder')
    read.state = 'done'
    await made.cancel(read as FileTask)
    expect([made.isBusy.value, made.problem.value]).toEqual([false, ''])
    expect(
      asked.filter(({ method }) => method !== 'GET').map(({ method, path }) => `${method} ${path}`),
    ).toEqual(['POST /api/jobs/j/files/copies', 'DELETE /api/jobs/j/files/tasks/t'])
    leave()
  })

  it('reads the simulated files once they are written', async () => {
    const played = { id: 'p', state: 'reading', folder: '/simulated' }
    const asked = answering(() => ({ body: { read: null, copies: null, played: { task: { ...played } } } }))
    const { made, leave } = onPage(useDayFiles)
    await settle()
    played.state = 'done'
    await made.play(3, 2)
    await settle()
    expect(asked.find(({ path }) => path.endsWith('/files/read'))?.body).toMatchObject({
      folder: '/simulated',
    })
    leave()
  })
})
