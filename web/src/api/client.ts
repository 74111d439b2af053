import { ApiProblem, changing, deliver, wordsOf, type Conflict } from './connection'
import { newId } from './ids'
import type { components } from './schema'

export { ApiProblem, wordsOf }

type Schemas = components['schemas']
export type JobState = Schemas['JobStateOut']
export type JobEntry = Schemas['JobOut']
export type Device = Schemas['DeviceOut']
export type DeviceDetail = Schemas['DeviceDetailOut']
export type Track = Schemas['TrackOut']
export type Lead = Schemas['LeadOut']
export type Finding = Schemas['FindingOut']
export type Advice = Schemas['AdviceOut']
export type Fix = Schemas['FixOut']
export type Edits = Schemas['EditsOut']
export type Edit = Fix['edits'][number]
export type Ladder = Schemas['LadderOut']
export type Rung = Schemas['RungOut']
export type Control = Schemas['ControlOut']
export type Way = Schemas['WayOut']
export type GainPlan = Schemas['GainPlanOut']
export type Pin = Schemas['PinIn']
export type TrackFigures = Schemas['TrackFiguresOut']
export type Pad = Schemas['PadOut']
export type PadWish = Schemas['PadIn']
export type WantedPad = Schemas['WantedPadOut']
export type CableChain = Schemas['CableChainOut']
export type Heard = Schemas['HeardOut']
export type Target = Schemas['TargetModel']
export type RunPicture = Schemas['RunPictureOut']
export type LeadPicture = Schemas['LeadPictureOut']
export type Use = Schemas['UseOut']
export type Contact = Schemas['ContactOut']
export type LeadDraft = Schemas['LeadIn']
export type WiringDraft = Schemas['WiringModel']
export type Judged = Schemas['JudgedOut']
export type LeadBox = Schemas['LeadBoxOut']
export type StockLead = Schemas['StockLeadOut']
export type Run = Schemas['RunModel']
export type Stretch = Schemas['StretchModel']
export type Hazard = Schemas['Hazard']
export type Changes = Schemas['ChangesOut']
export type Grammar = Schemas['GrammarOut']
export type Answer = Schemas['AnswerOut']
export type Proposal = Schemas['ProposalOut']
export type HistoryEntry = Schemas['HistoryOut']
export type Catalogue = Schemas['CatalogueOut']
export type LineUpStep = Schemas['LineUpStepOut']
export type VoiceStep = Schemas['VoiceStepOut']
export type Knob = LineUpStep['knobs'][number]
export type Reading = Schemas['ReadingOut']
export type Clock = Schemas['ClockOut']
export type MeasuredDelay = Schemas['MeasuredDelayOut']
export type Sync = Schemas['SyncOut']
export type Waves = Schemas['WavesOut']
export type PlaceIn = Schemas['PlaceIn']
export type WayName = Schemas['WayNameOut']
export type Compared = Schemas['ComparedOut']
export type Recording = Schemas['RecordingOut']
export type Measurement = Schemas['MeasurementOut']
export type BenchPoint = Schemas['PointOut']
export type BenchSeen = Schemas['SeenOut']
export type Play = Schemas['Play']
export type Walk = Schemas['WalkOut']
export type Copies = Schemas['CopiesOut']
export type News = Schemas['NewsOut']
export type WalkMark = Required<Schemas['MarkIn']>
export type Severity = Schemas['Severity']

/** On which state something is done, by whom; sent again under one `request` it is done once. */
export type Change = Required<Schemas['BaseIn']>

const PATIENCE_MS = 60_000 // what has not been answered by then is asked for again
const PIECE_BYTES = 4_000_000 // what is lost of a recording when the connection breaks

function call<T>(method: string, path: string, body?: unknown, isWanted?: () => boolean): Promise<T> {
  const asked: RequestInit = {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? null : JSON.stringify(body),
  }
  const answer = () => deliver(() => ask<T>(path, asked), isWanted)
  return method === 'GET' ? answer() : changing(answer)
}

/** Taking something away. That it is gone already is no fault: the answer to an earlier try may have been lost. */
async function away(path: string): Promise<void> {
  try {
    await call('DELETE', path)
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 404) throw error
  }
}

/** A recording that is measured while one waits. */
const hear = <T>(path: string, file: Blob): Promise<T> =>
  deliver(() => ask<T>(path, { method: 'POST', headers: { 'Content-Type': 'audio/wav' }, body: file }))

/** A recording as it lies on the disk, piece by piece under one id: after a break it goes on where it was. */
async function send<T>(path: string, file: Blob): Promise<T> {
  for (let at = 0; ;) {
    const end = Math.min(at + PIECE_BYTES, file.size)
    const headers = {
      'Content-Type': 'application/octet-stream',
      'Content-Range': file.size ? `bytes ${at}-${end - 1}/${file.size}` : 'bytes */0',
    }
    const piece = file.slice(at, end)
    const answer = await deliver(() =>
      ask<T | { received: number }>(path, { method: 'POST', headers, body: piece }),
    )
    if (!(answer instanceof Object && 'received' in answer)) return answer
    at = answer.received
  }
}

async function ask<T>(path: string, request: RequestInit): Promise<T> {
  let response: Response
  let text: string
  try {
    response = await fetch(`/api${path}`, { ...request, signal: AbortSignal.timeout(PATIENCE_MS) })
    text = await response.text()
  } catch {
    throw new ApiProblem(0, 'unreachable', 'The program does not answer.')
  }
  if (response.status === 204) return undefined as T
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    throw new ApiProblem(response.status, 'answer', `The program gave no proper answer (${response.status}).`)
  }
  if (!response.ok) {
    const problem = value as { code?: string; detail?: string } & Conflict
    throw new ApiProblem(
      response.status,
      problem.code ?? 'error',
      problem.detail ?? response.statusText,
      problem,
    )
  }
  return value as T
}

const part = encodeURIComponent

export const api = {
  catalogue: () => call<Catalogue>('GET', '/catalogue'),
  jobs: () => call<JobEntry[]>('GET', '/jobs'),
  create: (name: string, id: string) => call<JobState>('POST', '/jobs', { name, id }),
  importPlan: (plan: unknown, id: string) => call<JobState>('POST', `/jobs/import?id=${id}`, plan),
  remove: (job: string) => away(`/jobs/${job}`),
  job: (job: string) => call<JobState>('GET', `/jobs/${job}`),
  advice: (job: string) => call<Advice>('GET', `/jobs/${job}/advice`),
  edit: (job: string, change: Change, edits: readonly Edit[]) =>
    call<JobState>('POST', `/jobs/${job}/edits`, { ...change, edits }),
  undo: (job: string, change: Change) => call<JobState>('POST', `/jobs/${job}/undo`, change),
  redo: (job: string, change: Change) => call<JobState>('POST', `/jobs/${job}/redo`, change),
  history: (job: string) => call<HistoryEntry[]>('GET', `/jobs/${job}/revisions`),
  revision: (job: string, number: number) => call<JobState>('GET', `/jobs/${job}/revisions/${number}`),
  bringBack: (job: string, change: Change, number: number) =>
    call<JobState>('POST', `/jobs/${job}/revisions/${number}/bring-back`, change),
  differences: (job: string, before: number, after: number) =>
    call<string[]>('GET', `/jobs/${job}/differences?before=${before}&after=${after}`),
  wouldChange: (job: string, plan: unknown) => call<Changes>('POST', `/jobs/${job}/plan/preview`, plan),
  replacePlan: (job: string, change: Change, plan: unknown) =>
    call<JobState>('PUT', `/jobs/${job}/plan`, { ...change, plan }),
  device: (job: string, device: string) => call<DeviceDetail>('GET', `/jobs/${job}/devices/${part(device)}`),
  ladder: (job: string, track: string, through: string, edits: readonly Edit[]) =>
    call<Ladder>('POST', `/jobs/${job}/tracks/${part(track)}/ladder?through=${part(through)}`, { edits }),
  heard: (job: string, track: string, file: Blob, channel: number) =>
    hear<Heard>(`/jobs/${job}/tracks/${part(track)}/heard?channel=${channel}`, file),
  gainPlan: (job: string, pins: readonly Pin[]) => call<GainPlan>('POST', `/jobs/${job}/gain-plan`, { pins }),
  padFor: (job: string, run: string) =>
    call<WantedPad>('GET', run ? `/jobs/${job}/runs/${part(run)}/pad` : '/pads/usual'),
  pad: (wish: PadWish) => call<Pad>('POST', '/pads', wish),
  ways: (job: string, run: string) => call<Way[]>('GET', `/jobs/${job}/runs/${part(run)}/ways`),
  cableChains: (job: string, run: string) =>
    call<CableChain[]>('GET', `/jobs/${job}/runs/${part(run)}/cable-chains`),
  withLead: (job: string, run: string, lead: string) =>
    call<Edits>('GET', `/jobs/${job}/runs/${part(run)}/leads/${part(lead)}`),
  pictureDelay: (job: string, device: string, delay: string, bySdi: boolean) =>
    call<Edits>('GET', `/jobs/${job}/clock/pictures/${part(device)}?delay=${part(delay)}&by_sdi=${bySdi}`),
  insertedDevices: (job: string, run: string) =>
    call<Way[]>('GET', `/jobs/${job}/runs/${part(run)}/inserted-devices`),
  picture: (job: string, run: string) => call<RunPicture>('GET', `/jobs/${job}/runs/${part(run)}/picture`),
  leadBox: () => call<LeadBox>('GET', '/leads'),
  judge: (lead: LeadDraft) => call<Judged>('POST', '/leads/judge', lead),
  grammar: () => call<Grammar>('GET', '/grammar'),
  say: (job: string, text: string, isWanted?: () => boolean) =>
    call<Answer>('POST', `/jobs/${job}/say`, { text }, isWanted),
  lineUp: (job: string) => call<LineUpStep[]>('GET', `/jobs/${job}/line-up`),
  voices: (job: string) => call<VoiceStep[]>('GET', `/jobs/${job}/line-up/voices`),
  reading: (job: string, track: string, read: number, from: 'meter' | 'recording' | 'bench') =>
    call<Reading>('POST', `/jobs/${job}/line-up/${part(track)}/reading`, {
      read_dbfs: read,
      read_from: from,
    }),
  benchRecording: (job: string, track: string) =>
    call<Recording>('POST', `/jobs/${job}/bench/${part(track)}/tone?id=${newId()}`),
  benchSteps: (
    job: string,
    track: string,
    device: string,
    control: string,
    positions: number[],
    target: number,
  ) =>
    call<Recording>('POST', `/jobs/${job}/bench/${part(track)}/steps?id=${newId()}`, {
      device,
      control,
      positions,
      target_dbfs: target,
    }),
  law: (job: string, id: string, device: string, control: string, scale: [number, number] | null) =>
    call<Reading>('POST', `/jobs/${job}/recordings/${id}/law`, { device, control, scale }),
  meter: (job: string, id: string, track: string, shown: (number | null)[]) =>
    call<Reading>('POST', `/jobs/${job}/recordings/${id}/meter`, { track, shown_dbfs: shown }),
  wayNames: (job: string, run: string) =>
    call<WayName[]>('GET', `/jobs/${job}/runs/${part(run)}/compare/ways`),
  recordWays: (job: string, run: string, ways: string[]) =>
    call<Recording[]>('POST', `/jobs/${job}/runs/${part(run)}/compare/bench?id=${newId()}`, { ways }),
  compareWays: (job: string, run: string, recordings: Record<string, string>) =>
    call<Compared[]>('POST', `/jobs/${job}/runs/${part(run)}/compare`, { recordings }),
  recordings: (job: string) => call<Recording[]>('GET', `/jobs/${job}/recordings`),
  recording: (job: string, id: string) => call<Recording>('GET', `/jobs/${job}/recordings/${id}`),
  sendRecording: (job: string, file: File, asked: URLSearchParams) =>
    send<Recording>(`/jobs/${job}/recordings?id=${newId()}&${asked}`, file),
  cancelRecording: (job: string, id: string) =>
    call<Recording>('POST', `/jobs/${job}/recordings/${id}/cancel`),
  removeRecording: (job: string, id: string) => away(`/jobs/${job}/recordings/${id}`),
  benchPoints: (job: string, track: string) =>
    call<BenchPoint[]>('GET', `/jobs/${job}/bench/${part(track)}/points`),
  benchSeen: (job: string, track: string, point: number, asked: string) =>
    call<BenchSeen>('GET', `/jobs/${job}/bench/${part(track)}/points/${point}?${asked}`),
  benchSound: (job: string, track: string, point: number, asked: string) =>
    `/api/jobs/${job}/bench/${part(track)}/points/${point}/sound.wav?${asked}`,
  keptSound: (job: string, id: string) => `/api/jobs/${job}/recordings/${id}/sound`,
  toneAddress: (job: string) => `/api/jobs/${job}/tone.wav`,
  walks: (job: string) => call<Walk[]>('GET', `/jobs/${job}/walks`),
  beginWalk: (job: string) => call<Walk>('POST', `/jobs/${job}/walks?id=${newId()}`),
  walk: (job: string, walk: string) => call<Walk>('GET', `/jobs/${job}/walks/${walk}`),
  markWalk: (job: string, walk: string, marks: readonly WalkMark[]) =>
    call<Walk>('PUT', `/jobs/${job}/walks/${walk}/marks`, { marks }),
  nearby: (page: string) => call<{ link: string | null }>('GET', `/nearby?page=${part(page)}`),
  nearbyCode: (page: string) => `/api/nearby/code.svg?page=${part(page)}`,
  clock: (job: string) => call<Clock>('GET', `/jobs/${job}/clock`),
  clap: (job: string, screen: string, camera: string, frame: number, file: Blob) =>
    hear<MeasuredDelay>(
      `/jobs/${job}/clock/screens/${part(screen)}/clap?camera=${part(camera)}&frame=${frame}`,
      file,
    ),
  sync: (job: string) => call<Sync>('GET', `/jobs/${job}/sync`),
  sendSyncFile: (job: string, file: File, side: 'recorder' | 'camera') =>
    send<Sync['files'][number]>(
      `/jobs/${job}/sync/files?id=${newId()}&side=${side}&name=${part(file.name)}`,
      file,
    ),
  removeSyncFile: (job: string, file: string) => away(`/jobs/${job}/sync/files/${file}`),
  matchSync: (job: string) => call<Sync['match']>('POST', `/jobs/${job}/sync/match`),
  cancelSync: (job: string) => call<Sync>('POST', `/jobs/${job}/sync/match/cancel`),
  nudgeClip: (job: string, file: string, samples: number, request: string) =>
    call<Sync>('PUT', `/jobs/${job}/sync/clips/${file}/nudge`, { samples, request }),
  placeClip: (job: string, file: string, where: PlaceIn, request: string) =>
    call<Sync>('PUT', `/jobs/${job}/sync/clips/${file}/place`, { ...where, request }),
  waves: (job: string, file: string, at: number, span: number) =>
    call<Waves>('GET', `/jobs/${job}/sync/clips/${file}/waves?at_s=${at}&span_s=${span}`),
  heardAddress: (job: string, file: string, at: number, span: number) =>
    `/api/jobs/${job}/sync/clips/${file}/heard.wav?at_s=${at}&span_s=${span}`,
  alignedAddress: (job: string, file: string, stretch: boolean) =>
    `/api/jobs/${job}/sync/clips/${file}/aligned.wav?stretch=${stretch}`,
  syncExport: (job: string, line: number, kind: string) =>
    `/api/jobs/${job}/sync/timelines/${line}/export.${kind}`,
  copies: () => call<Copies>('GET', '/copies'),
  makeCopy: () => call<Copies['copies'][number]>('POST', '/copies'),
  copyAddress: (name: string) => `/api/copies/${part(name)}`,
  everythingAddress: '/api/everything',
  newsAddress: (job: string) => `/api/jobs/${job}/news`,
  planAddress: (job: string) => `/api/jobs/${job}/plan`,
}
