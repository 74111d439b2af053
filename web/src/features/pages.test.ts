import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'

import type { Pin } from '@/api/client'
import { onJob, settle } from '@/testing/job'
import { answering, serve } from '@/testing/server'
import { useSimulation } from './simulation/useSimulation'
import { useCopies } from './copies/useCopies'
import { useGainPlan } from './gain/useGainPlan'
import { useTracedTrack } from './gain/useTracedTrack'
import { usePlanFile } from './job/usePlanFile'
import { useJobs } from './door/useJobs'
import { useLeadBox } from '@/composables/useLeadBox'
import { usePad } from './pads/usePad'
import { useOtherLeads } from './runs/useOtherLeads'
import { useRunPicture } from './runs/useRunPicture'
import { useTelephones } from './telephones/useTelephones'

const STEPS_OF_ONE = [{ device: 'boom', edit: { kind: 'a' } }]

describe('useGainPlan', () => {
  const STEPS = [
    { device: 'boom', edit: { kind: 'a' } },
    { device: 'bag', edit: { kind: 'b' } },
    { device: 'bag', edit: { kind: 'c' } },
  ]

  it('is made anew with what is pinned, by device, and applied as a whole', async () => {
    const asked = answering(() => ({ body: { steps: STEPS } }))
    const { made, edits } = onJob(useGainPlan, { devices: [{ id: 'bag', label: 'Bag' }] })
    await settle()
    expect(made.byDevice.value.map(({ label, steps }) => [label, steps.length])).toEqual([
      ['', 1],
      ['Bag', 2],
    ])
    const pin: Pin = { device: 'bag', control: 'in1.gain' }
    made.pin(pin)
    made.pin({ ...pin })
    await settle()
    expect(asked.map(({ body }) => body)).toEqual([{ pins: [] }, { pins: [pin] }])
    await made.apply()
    expect(edits.map(({ kind }) => kind)).toEqual(['a', 'b', 'c'])
  })
})

describe('useGainPlan of a large job', () => {
  it('waits for the worker, and gives it up where it is cancelled', async () => {
    let looks = 0
    const asked = answering(({ method }) => {
      if (method === 'POST') return { body: { task: 't', state: 'waiting', message: '', plan: null } }
      const plan = (looks += 1) > 1 ? { steps: STEPS_OF_ONE } : null
      return { body: { task: 't', state: 'reading', message: '', plan } }
    })
    const { made } = onJob(useGainPlan)
    await vi.waitFor(() => expect(made.plan.value).not.toBeNull(), 3000)
    expect(asked.map(({ method }) => method)).toEqual(['POST', 'GET', 'GET'])
    looks = -99
    made.pin({ device: 'bag', control: 'x' })
    await vi.waitFor(() => expect(asked.length).toBeGreaterThan(4), 3000)
    made.cancel()
    await vi.waitFor(() => expect(asked.at(-1)?.method).toBe('DELETE'), 3000)
    await vi.waitFor(() => expect(made.busy.value).toBe(false), 3000)
  })
})

describe('useTracedTrack', () => {
  it('gives a track as it is and as edits would make it', async () => {
    answering(({ body }) => ({ body: { count: (body as { edits: unknown[] }).edits.length } }))
    const { made } = onJob(() =>
      useTracedTrack(
        () => 'cam.L',
        () => [{ kind: 'set-control' }] as never,
      ),
    )
    await settle()
    expect(made.value).toEqual({ now: { count: 0 }, then: { count: 1 } })
  })
})

describe('useSimulation', () => {
  it('listens at the end of the chain, and where it was put', async () => {
    const asked = answering(({ path }) => ({
      body: path.endsWith('points') ? [{ run: '' }, { run: 'run-1' }, { run: '' }] : { path },
    }))
    const { made, moveOn } = onJob(() => useSimulation(ref('cam.L')))
    await settle()
    expect(made.point.value).toBe(2)
    made.point.value = 1
    made.loose.value = 'run-1'
    await settle()
    expect(asked.at(-1)?.path).toContain('/points/1?play=voice&loose=run-1')
    moveOn()
    await settle()
    expect([made.point.value, made.sound.value.endsWith('&state=2')]).toEqual([1, true])
  })
})

describe('usePad', () => {
  const WANTED = {
    loss_db: 25,
    source_ohm: 100,
    load_ohm: 2500,
    fitting: 'barrel',
    length_m: 3,
    fittings: [
      { id: 'barrel', layouts: ['u'] },
      { id: 'stereo', layouts: ['l'] },
    ],
  }

  it('begins with what the cable wants, and takes a layout that can be built in', async () => {
    const asked = answering(({ method, path }) => ({
      body: method === 'GET' ? WANTED : { lead: path.endsWith('pads') ? {} : null },
    }))
    const { made } = onJob(() => usePad(ref('j'), ref('run-2')))
    await settle()
    expect(made.wish.value).toMatchObject({ loss_db: 25, layout: 'u', series: 'E24' })
    made.change({ fitting: 'stereo', tolerance_percent: 2 })
    made.change({ series: 'E96' })
    await settle()
    expect(made.wish.value).toMatchObject({ layout: 'l', series: 'E96' })
    expect(made.wish.value).not.toHaveProperty('tolerance_percent')
    expect(asked.map(({ path }) => path)).toContain('/api/leads/judge')
  })
})

describe('cables', () => {
  const RUNS = { plan: { runs: [{ id: 'run-2' }] } }

  it('draws a cable that the job has', async () => {
    const asked = answering(() => ({ body: { mono: '' } }))
    const run = ref('gone')
    onJob(() => useRunPicture(run), RUNS)
    await settle()
    expect(asked).toHaveLength(0)
    run.value = 'run-2'
    await settle()
    expect(asked[0]?.path).toBe('/api/jobs/j/runs/run-2/picture')
  })

  it('asks for options via another device only when they are wanted, and not again on the next state', async () => {
    const asked = answering(() => ({ body: [] }))
    const { made, moveOn } = onJob(() => useOtherLeads(() => 'run-2'), RUNS)
    await settle()
    made.isWanted.value = true
    await settle()
    moveOn()
    await settle()
    expect(asked.map(({ path }) => path.split('/').at(-1))).toEqual([
      'cable-chains',
      'inserted-devices',
      'cable-chains',
    ])
  })

  it('knows what cables are made of', async () => {
    serve({ body: { ends: [], leads: [] } })
    const { made } = onJob(useLeadBox)
    await settle()
    expect(made.value).toEqual({ ends: [], leads: [] })
  })
})

describe('usePlanFile', () => {
  it('shows what a plan file would change before it does', async () => {
    serve({ body: { changes: ['bag is new'] } })
    const { made, job } = onJob(usePlanFile)
    const replace = vi.spyOn(job, 'replace').mockResolvedValue(true)
    await made.read(new File(['{"name": "x"}'], 'plan.json'))
    expect(made.changes.value).toEqual({ changes: ['bag is new'] })
    await made.use()
    expect(replace).toHaveBeenCalledWith({ name: 'x' })
    expect(made.file.value).toBeNull()
  })

  it('says what is wrong with a file, by its name', async () => {
    serve({ status: 422, body: { code: 'format', detail: 'devices.bag: unknown class' } })
    const { made, job } = onJob(usePlanFile)
    await made.read(new File(['not JSON'], 'take.wav'))
    expect(job.problem).toBe('take.wav is not a saved plan (.json).')
    await made.read(new File(['{}'], 'plan.json'))
    expect(job.problem).toBe('plan.json: devices.bag: unknown class')
  })
})

describe('useJobs', () => {
  it('opens what is created or read in, and says what cannot be', async () => {
    answering(({ method, path }) => {
      if (path === '/api/copies') return { body: { copies: [] } }
      return { body: method === 'GET' ? [{ id: 'j' }] : { job: 'new' } }
    })
    const open = vi.fn(() => Promise.resolve())
    const { made } = onJob(() => useJobs(open))
    await settle()
    expect([made.jobs.value?.length, made.backedUp.value]).toEqual([1, ''])
    await made.create(' Day one ')
    await made.readIn(new File(['{}'], 'plan.json'))
    expect(open).toHaveBeenCalledTimes(2)
    await made.readIn(new File(['RIFF'], 'take.wav'))
    expect(made.problem.value).toBe(
      'take.wav is not a saved plan (.json). To check a recording, choose Check a recording above.',
    )
  })
})

describe('useCopies', () => {
  it('makes one more where it is asked for, and one at a time', async () => {
    const asked = answering(({ method }) => ({ body: method === 'POST' ? {} : { copies: [] } }))
    const { made } = onJob(useCopies)
    await settle()
    await Promise.all([made.make(), made.make()])
    expect(asked.map(({ method }) => method)).toEqual(['GET', 'POST', 'GET'])
  })
})

describe('useTelephones', () => {
  it('shows a key once, and forgets it when it is revoked', async () => {
    const guest = { id: 'k', name: 'Boom' }
    const asked = answering(({ method }) => {
      if (method === 'POST') return { body: { guest, link: 'https://x/?key=k.s', code: '<svg/>' } }
      return { body: { network: { address: 'https://x', fingerprint: '' }, keys: [guest] } }
    })
    const { made } = onJob(() => useTelephones('/jobs/j/walk'))
    await settle()
    expect(await made.make(' Boom ', 'walk')).toBe(true)
    expect(made.made.value?.link).toContain('key=')
    await made.revoke('k')
    expect(made.made.value).toBeNull()
    const changes = asked.filter(({ method }) => method !== 'GET')
    expect(changes.map(({ method, body }) => [method, body])).toEqual([
      ['POST', { name: 'Boom', access: 'walk' }],
      ['DELETE', ''],
    ])
  })
})
