import createClient from 'openapi-fetch'
import { ApiProblem, changing, deliver, noteAnswer, wordsOf, type Conflict } from './connection'
import { newId } from './ids'
import type { components, paths } from './schema'

export { ApiProblem, wordsOf }

type Schemas = components['schemas']
export type Day = Schemas['DayOut']
export type DayTask = Schemas['DayTaskOut']
export type Holding = Schemas['HoldingOut']
export type Log = Schemas['LogOut']
export type LogEntry = Schemas['LogEntryIn']
export type LoggedTake = Schemas['LoggedTakeOut']
export type DayFiles = Schemas['DayFilesOut']
export type FileFinding = Schemas['FileFindingOut']
export type FileTask = Schemas['FileTaskOut']
export type DayCopies = Schemas['DayCopiesOut']
export type TakeStatus = Schemas['TakeStatus']
export type JobState = Schemas['JobStateOut']
export type ClassPage = Schemas['ClassPageOut']
export type ClassDraft = Schemas['ClassDraftOut']
export type Datasheet = Schemas['DatasheetIn']
export type OwnClass = Schemas['OwnClassOut']
export type JobClass = Schemas['JobClassOut']
export type ClassFile = Schemas['ClassFileIn']
export type TrackMoved = Schemas['TrackMovedOut']
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
export type MatchingOption = Schemas['MatchingOptionOut']
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
export type LinedUpPair = Schemas['LinedUpPairOut']
export type Example = Schemas['ExampleOut']
export type Rigs = Schemas['RigsOut']
export type Rig = Schemas['RigOut']
export type Gap = Schemas['GapOut']
export type RigPicture = Schemas['RigPictureOut']
export type Ends = Schemas['EndsIn']
export type TwoThings = Schemas['TwoThingsOut']
export type FaultSearch = Schemas['SearchOut']
export type Sockets = Schemas['SocketsOut']
export type Join = Schemas['JoinIn']
export type GearTest = Schemas['GearTestOut']
export type GearAnswer = Schemas['GearAnswerIn']
export type LineUpStep = Schemas['LineUpStepOut']
export type VoiceStep = Schemas['VoiceStepOut']
export type Knob = LineUpStep['knobs'][number]
export type Reading = Schemas['ReadingOut']
export type Clock = Schemas['ClockOut']
export type MeasuredDelay = Schemas['MeasuredDelayOut']
export type Sync = Schemas['SyncOut']
export type Waves = Schemas['WavesOut']
export type PlaceIn = Schemas['PlaceIn']
export type OptionName = Schemas['OptionNameOut']
export type Comparison = Schemas['ComparedOut']
export type Recording = Schemas['RecordingOut']
export type Measurement = Schemas['MeasurementOut']
export type SimulatedPoint = Schemas['PointOut']
export type SimulatedSeen = Schemas['SeenOut']
export type Play = Schemas['Play']
export type Walk = Schemas['WalkOut']
export type Stock = Schemas['StockOut']
export type Trunk = Schemas['TrunkOut']
export type Drill = Schemas['DrillOut']
export type DrillLadders = Schemas['DrillLaddersOut']
export type EarSession = Schemas['EarOut']
export type EarTasks = Schemas['EarTaskOut'][]
export type Training = Schemas['TrainingOut']
export type DrillAsked = Omit<Schemas['DrillIn'], 'id'>
export type PieceChange = Schemas['PieceChangeIn']
export type Described = Schemas['DescribedOut']
export type TrunkTick = Required<Schemas['TickIn']>
export type Photo = NonNullable<Schemas['LogOut']['photos']>[number]
export type SceneNotes = Schemas['SceneNotesOut']
export type Copies = Schemas['CopiesOut']
export type News = Schemas['NewsOut']
export type WalkMark = Required<Schemas['MarkIn']>
export type Severity = Schemas['Severity']
export type Guests = Schemas['GuestsOut']
export type MadeKey = Schemas['MadeKeyOut']
export type Me = Schemas['MeOut']
export type Access = Schemas['Access']
type PlanFile = Schemas['PlanDocument'] // what is sent as one: whether it is, the server says
export type SimulatedSteps = Schemas['SimulatedStepsIn']
type Query<P extends keyof paths, M extends keyof paths[P]> = paths[P][M] extends {
  parameters: { query?: infer Q }
}
  ? NonNullable<Q>
  : never
/** What a recording is made for. */
export type AskedOfRecording = Omit<Query<'/api/jobs/{job_id}/recordings', 'post'>, 'id' | 'name'>
/** What is played in a simulation. */
export type PhotoOf = Required<Query<'/api/jobs/{job_id}/log/photos', 'post'>>
export type AskedOfSimulation = Query<'/api/jobs/{job_id}/simulation/{track_id}/points/{number}', 'get'>

/** On which state something is done, by whom; sent again under one `request` it is done once. */
export type Change = Required<Schemas['BaseIn']>

const PATIENCE_MS = 60_000 // what has not been answered by then is asked for again
const LOOK_MS = 300 // how often is looked whether a worker has done something
const PIECE_BYTES = 4_000_000 // what is lost of a recording when the connection breaks

/** The application's own server: addresses, what is sent and what comes back are those of its description. */
const server = createClient<paths>({
  baseUrl: location.origin,
  fetch: (request) => fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) }),
})

/** One try of a request. */
type Asking<T> = () => Promise<{ data?: T; error?: unknown; response: Response }>

/** Something that is only read: tried until it is answered, or until nobody wants it any more. */
const reading = <T>(asking: Asking<T>, isWanted?: () => boolean) => deliver(() => answer(asking), isWanted)

/** Something that changes what the program keeps, under an id: sent again it is done once. */
const writing = <T>(asking: Asking<T>) => changing(() => reading(asking))

async function answer<T>(asking: Asking<T>): Promise<T> {
  let got: Awaited<ReturnType<Asking<T>>>
  try {
    got = await asking()
  } catch (error) {
    if (error instanceof SyntaxError)
      throw new ApiProblem(500, 'answer', 'The program gave no proper answer.')
    throw new ApiProblem(0, 'unreachable', 'The program does not answer.')
  }
  const { data, error, response } = got
  noteAnswer(response)
  if (response.ok) return data as T
  if (!(error instanceof Object)) {
    throw new ApiProblem(response.status, 'answer', `The program gave no proper answer (${response.status}).`)
  }
  const problem = error as { code?: string; detail?: string } & Conflict
  throw new ApiProblem(
    response.status,
    problem.code ?? 'error',
    problem.detail ?? response.statusText,
    problem,
  )
}

/** Taking something away. That it is gone already is no fault: the answer to an earlier try may have been lost. */
async function away(asking: Asking<unknown>): Promise<void> {
  try {
    await writing(asking)
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 404) throw error
  }
}

/** A file is sent as it is. */
const asItIs = { bodySerializer: (file: unknown) => file as Blob }
const binary = (file: Blob) => file as unknown as string // as the description calls it

/** A recording as it lies on the disk, piece by piece under one id: after a break it goes on where it was. */
async function send<T extends object>(
  file: Blob,
  piece: (body: string, headers: Record<string, string>) => ReturnType<Asking<T | { received: number }>>,
): Promise<T> {
  for (let at = 0; ;) {
    const end = Math.min(at + PIECE_BYTES, file.size)
    const headers = {
      'Content-Type': 'application/octet-stream',
      'Content-Range': file.size ? `bytes ${at}-${end - 1}/${file.size}` : 'bytes */0',
    }
    const got = await reading(() => piece(binary(file.slice(at, end)), headers))
    if (!('received' in got)) return got
    at = got.received
  }
}

const wav = { headers: { 'Content-Type': 'audio/wav' }, ...asItIs }

export const api = {
  catalogue: () => reading(() => server.GET('/api/catalogue')),
  jobs: () => reading(() => server.GET('/api/jobs')),
  create: (name: string, id: string) => writing(() => server.POST('/api/jobs', { body: { name, id } })),
  importPlan: (plan: unknown, id: string) =>
    writing(() => server.POST('/api/jobs/import', { params: { query: { id } }, body: plan as PlanFile })),
  remove: (job: string) =>
    away(() => server.DELETE('/api/jobs/{job_id}', { params: { path: { job_id: job } } })),
  job: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}', { params: { path: { job_id: job } } })),
  advice: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/advice', { params: { path: { job_id: job } } })),
  edit: (job: string, change: Change, edits: readonly Edit[]) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/edits', {
        params: { path: { job_id: job } },
        body: { ...change, edits: [...edits] },
      }),
    ),
  undo: (job: string, change: Change) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/undo', { params: { path: { job_id: job } }, body: change }),
    ),
  redo: (job: string, change: Change) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/redo', { params: { path: { job_id: job } }, body: change }),
    ),
  history: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/revisions', { params: { path: { job_id: job } } })),
  revision: (job: string, number: number) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/revisions/{number}', { params: { path: { job_id: job, number } } }),
    ),
  bringBack: (job: string, change: Change, number: number) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/revisions/{number}/bring-back', {
        params: { path: { job_id: job, number } },
        body: change,
      }),
    ),
  differences: (job: string, before: number, after: number) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/differences', {
        params: { path: { job_id: job }, query: { before, after } },
      }),
    ),
  wouldChange: (job: string, plan: unknown) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/plan/preview', {
        params: { path: { job_id: job } },
        body: plan as PlanFile,
      }),
    ),
  replacePlan: (job: string, change: Change, plan: unknown) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/plan', {
        params: { path: { job_id: job } },
        body: { ...change, plan: plan as PlanFile },
      }),
    ),
  device: (job: string, device: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/devices/{device_id}', {
        params: { path: { job_id: job, device_id: device } },
      }),
    ),
  ladder: (job: string, track: string, through: string, edits: readonly Edit[]) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/tracks/{track_id}/ladder', {
        params: { path: { job_id: job, track_id: track }, query: { through } },
        body: { edits: [...edits] },
      }),
    ),
  heard: (job: string, track: string, file: Blob, channel: number) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/tracks/{track_id}/heard', {
        params: { path: { job_id: job, track_id: track }, query: { channel } },
        body: binary(file),
        ...wav,
      }),
    ),
  /** Made at once, or by a worker: then looked after until it is there, and given up where nobody wants it any more. */
  gainPlan: async (job: string, pins: readonly Pin[], isWanted: () => boolean): Promise<GainPlan> => {
    const made = await reading(() =>
      server.POST('/api/jobs/{job_id}/gain-plan', {
        params: { path: { job_id: job } },
        body: { pins: [...pins] },
      }),
    )
    if (!('task' in made)) return made
    const params = { path: { job_id: job, task_id: made.task } }
    for (;;) {
      await new Promise((done) => setTimeout(done, LOOK_MS))
      if (!isWanted()) {
        await reading(() => server.DELETE('/api/jobs/{job_id}/gain-plan/{task_id}', { params }))
        throw new ApiProblem(0, 'dropped', 'Cancelled.')
      }
      const { plan, state, message } = await reading(() =>
        server.GET('/api/jobs/{job_id}/gain-plan/{task_id}', { params }),
      )
      if (plan) return plan
      if (state === 'failed' || state === 'cancelled') throw new ApiProblem(422, 'failed', message)
    }
  },
  padFor: (job: string, run: string) =>
    reading(() =>
      run
        ? server.GET('/api/jobs/{job_id}/runs/{run_id}/pad', {
            params: { path: { job_id: job, run_id: run } },
          })
        : server.GET('/api/pads/usual'),
    ),
  pad: (wish: PadWish) => reading(() => server.POST('/api/pads', { body: wish })),
  options: (job: string, run: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/options', {
        params: { path: { job_id: job, run_id: run } },
      }),
    ),
  cableChains: (job: string, run: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/cable-chains', {
        params: { path: { job_id: job, run_id: run } },
      }),
    ),
  withLead: (job: string, run: string, lead: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/leads/{lead_id}', {
        params: { path: { job_id: job, run_id: run, lead_id: lead } },
      }),
    ),
  pictureDelay: (job: string, device: string, delay: string, bySdi: boolean) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/clock/pictures/{device}', {
        params: { path: { job_id: job, device }, query: { delay, by_sdi: bySdi } },
      }),
    ),
  insertedDevices: (job: string, run: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/inserted-devices', {
        params: { path: { job_id: job, run_id: run } },
      }),
    ),
  picture: (job: string, run: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/picture', {
        params: { path: { job_id: job, run_id: run } },
      }),
    ),
  leadBox: () => reading(() => server.GET('/api/leads')),
  judge: (lead: LeadDraft) => reading(() => server.POST('/api/leads/judge', { body: lead })),
  grammar: () => reading(() => server.GET('/api/grammar')),
  say: (job: string, text: string, isWanted?: () => boolean) =>
    reading(
      () => server.POST('/api/jobs/{job_id}/say', { params: { path: { job_id: job } }, body: { text } }),
      isWanted,
    ),
  gearTests: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/gear-tests', { params: { path: { job_id: job } } })),
  answerGearTest: (job: string, answer: GearAnswer) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/gear-tests/answer', {
        params: { path: { job_id: job } },
        body: answer,
      }),
    ),
  simulateGearTest: (job: string, test: string, id = newId()) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/gear-tests/simulate', {
        params: { path: { job_id: job }, query: { id } },
        body: { test },
      }),
    ),
  lineUp: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/line-up', { params: { path: { job_id: job } } })),
  voices: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/line-up/voices', { params: { path: { job_id: job } } })),
  reading: (job: string, track: string, read: number, from: 'meter' | 'recording' | 'simulation') =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/line-up/{track_id}/reading', {
        params: { path: { job_id: job, track_id: track } },
        body: { read_dbfs: read, read_from: from },
      }),
    ),
  earlier: (job: string, track: string) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/line-up/{track_id}/earlier', {
        params: { path: { job_id: job, track_id: track } },
      }),
    ),
  pairs: () => reading(() => server.GET('/api/equipment-pairs')),
  forgetPair: (key: string) =>
    away(() => server.DELETE('/api/equipment-pairs', { params: { query: { key } } })),
  simulateTone: (job: string, track: string, id = newId()) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/simulation/{track_id}/tone', {
        params: { path: { job_id: job, track_id: track }, query: { id } },
      }),
    ),
  simulateSteps: (job: string, track: string, steps: SimulatedSteps, id = newId()) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/simulation/{track_id}/steps', {
        params: { path: { job_id: job, track_id: track }, query: { id } },
        body: steps,
      }),
    ),
  law: (job: string, id: string, device: string, control: string, scale: [number, number] | null) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/recordings/{recording_id}/law', {
        params: { path: { job_id: job, recording_id: id } },
        body: { device, control, scale },
      }),
    ),
  meter: (job: string, id: string, track: string, shown: (number | null)[]) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/recordings/{recording_id}/meter', {
        params: { path: { job_id: job, recording_id: id } },
        body: { track, shown_dbfs: shown },
      }),
    ),
  optionNames: (job: string, run: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/runs/{run_id}/compare/options', {
        params: { path: { job_id: job, run_id: run } },
      }),
    ),
  recordOptions: (job: string, run: string, options: string[], id = newId()) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/runs/{run_id}/compare/simulation', {
        params: { path: { job_id: job, run_id: run }, query: { id } },
        body: { options },
      }),
    ),
  compareOptions: (job: string, run: string, recordings: Record<string, string>) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/runs/{run_id}/compare', {
        params: { path: { job_id: job, run_id: run } },
        body: { recordings },
      }),
    ),
  recordings: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/recordings', { params: { path: { job_id: job } } })),
  recording: (job: string, id: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/recordings/{recording_id}', {
        params: { path: { job_id: job, recording_id: id } },
      }),
    ),
  sendRecording: (job: string, file: File, asked: AskedOfRecording, id = newId()) =>
    send<Recording>(file, (body, headers) =>
      server.POST('/api/jobs/{job_id}/recordings', {
        params: { path: { job_id: job }, query: { ...asked, name: file.name, id } },
        body,
        headers,
        ...asItIs,
      }),
    ),
  cancelRecording: (job: string, id: string) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/recordings/{recording_id}/cancel', {
        params: { path: { job_id: job, recording_id: id } },
      }),
    ),
  removeRecording: (job: string, id: string) =>
    away(() =>
      server.DELETE('/api/jobs/{job_id}/recordings/{recording_id}', {
        params: { path: { job_id: job, recording_id: id } },
      }),
    ),
  simulatedPoints: (job: string, track: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/simulation/{track_id}/points', {
        params: { path: { job_id: job, track_id: track } },
      }),
    ),
  simulatedSeen: (job: string, track: string, number: number, query: AskedOfSimulation) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/simulation/{track_id}/points/{number}', {
        params: { path: { job_id: job, track_id: track, number }, query },
      }),
    ),
  walks: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/walks', { params: { path: { job_id: job } } })),
  beginWalk: (job: string, short: boolean, id = newId()) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/walks', { params: { path: { job_id: job }, query: { id, short } } }),
    ),
  walk: (job: string, walk: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/walks/{walk_id}', { params: { path: { job_id: job, walk_id: walk } } }),
    ),
  markWalk: (job: string, walk: string, marks: readonly WalkMark[]) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/walks/{walk_id}/marks', {
        params: { path: { job_id: job, walk_id: walk } },
        body: { marks: [...marks] },
      }),
    ),
  day: (job: string, query: { rest?: boolean; first?: boolean }) =>
    reading(() => server.GET('/api/jobs/{job_id}/day', { params: { path: { job_id: job }, query } })),
  daySheet: (job: string, text: string) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/day/sheet', { params: { path: { job_id: job } }, body: { text } }),
    ),
  log: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/log', { params: { path: { job_id: job } } })),
  sceneNotes: (job: string, slate: string) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/log/scene', { params: { path: { job_id: job }, query: { slate } } }),
    ),
  dayFiles: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/files', { params: { path: { job_id: job } } })),
  readFolder: (job: string, folder: string, with_sound: boolean) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/files/read', {
        params: { path: { job_id: job } },
        body: { folder, with_sound },
      }),
    ),
  copyFiles: (job: string, into: string, second: string, mono: boolean) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/files/copies', {
        params: { path: { job_id: job } },
        body: { into, second, mono },
      }),
    ),
  playDay: (job: string, seed: number, faults: number) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/files/simulated', {
        params: { path: { job_id: job } },
        body: { seed, faults },
      }),
    ),
  mendLog: (job: string, path: string, fix: FileFinding['can_be']) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/files/mend', {
        params: { path: { job_id: job } },
        body: { path, fix },
      }),
    ),
  endFileTask: (job: string, task: string) =>
    away(() =>
      server.DELETE('/api/jobs/{job_id}/files/tasks/{task_id}', {
        params: { path: { job_id: job, task_id: task } },
      }),
    ),
  addToLog: (job: string, entries: readonly LogEntry[]) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/log', {
        params: { path: { job_id: job } },
        body: { entries: [...entries], sent: new Date().toISOString() },
      }),
    ),
  me: () => reading(() => server.GET('/api/me')),
  guests: () => reading(() => server.GET('/api/guests')),
  makeKey: (name: string, access: Access, page: string, id = newId()) =>
    writing(() => server.POST('/api/guests', { params: { query: { page, id } }, body: { name, access } })),
  renewKey: (key: string, page: string) =>
    reading(() =>
      server.POST('/api/guests/{key_id}/renew', { params: { path: { key_id: key }, query: { page } } }),
    ),
  renameKey: (key: string, name: string) =>
    reading(() =>
      server.PUT('/api/guests/{key_id}/name', { params: { path: { key_id: key } }, body: { name } }),
    ),
  revokeKey: (key: string) =>
    reading(() => server.DELETE('/api/guests/{key_id}', { params: { path: { key_id: key } } })),
  clock: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/clock', { params: { path: { job_id: job } } })),
  clap: (job: string, screen: string, camera: string, frame: number, file: Blob) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/clock/screens/{device}/clap', {
        params: { path: { job_id: job, device: screen }, query: { camera, frame } },
        body: binary(file),
        ...wav,
      }),
    ),
  hearTimecode: (job: string, sound: Blob) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/log/timecode', {
        params: { path: { job_id: job } },
        body: binary(sound),
        ...wav,
      }),
    ),
  earTasks: () => reading(() => server.GET('/api/ear')),
  beginEar: (id: string, task: EarSession['task'], who: string) =>
    reading(() => server.POST('/api/ear', { body: { id, task, who } })),
  ear: (id: string) =>
    reading(() => server.GET('/api/ear/{session_id}', { params: { path: { session_id: id } } })),
  answerEar: (id: string, which: number, number: number) =>
    reading(() =>
      server.POST('/api/ear/{session_id}/answer', {
        params: { path: { session_id: id } },
        body: { which, number },
      }),
    ),
  training: () => reading(() => server.GET('/api/drills')),
  beginDrill: (id: string, asked: DrillAsked) =>
    reading(() => server.POST('/api/drills', { body: { ...asked, id } })),
  drillLadders: (id: string) =>
    reading(() => server.GET('/api/drills/{drill_id}/ladders', { params: { path: { drill_id: id } } })),
  jobOfDrill: (drill: string, id: string) =>
    reading(() =>
      server.POST('/api/drills/{drill_id}/job', { params: { path: { drill_id: drill } }, body: { id } }),
    ),
  drill: (id: string) =>
    reading(() => server.GET('/api/drills/{drill_id}', { params: { path: { drill_id: id } } })),
  doProbe: (id: string, probe: string, number: number) =>
    reading(() =>
      server.POST('/api/drills/{drill_id}/probes', {
        params: { path: { drill_id: id } },
        body: { probe, number },
      }),
    ),
  answerDrill: (id: string, answer: string, number: number, givesUp: boolean) =>
    reading(() =>
      server.POST('/api/drills/{drill_id}/answer', {
        params: { path: { drill_id: id } },
        body: { answer, number, gives_up: givesUp },
      }),
    ),
  stock: () => reading(() => server.GET('/api/trunk')),
  previewTrunk: (line: string) => reading(() => server.POST('/api/trunk/preview', { body: { line } })),
  addToTrunk: (line: string) => reading(() => server.POST('/api/trunk', { body: { line } })),
  previewTrunkTable: (text: string) =>
    reading(() => server.POST('/api/trunk/table/preview', { body: { text } })),
  readTrunkTable: (text: string) => reading(() => server.POST('/api/trunk/table', { body: { text } })),
  changePiece: (piece: string, body: Schemas['PieceChangeIn']) =>
    reading(() =>
      server.PUT('/api/trunk/pieces/{piece_id}', { params: { path: { piece_id: piece } }, body }),
    ),
  removePieces: (pieces: string[]) => reading(() => server.POST('/api/trunk/remove', { body: { pieces } })),
  usePiece: (piece: string, count: number) =>
    reading(() =>
      server.POST('/api/trunk/pieces/{piece_id}/used', {
        params: { path: { piece_id: piece } },
        body: { count },
      }),
    ),
  photographPiece: (piece: string, photo: Blob) =>
    writing(() =>
      server.POST('/api/trunk/pieces/{piece_id}/photo', {
        params: { path: { piece_id: piece } },
        body: binary(photo),
        headers: { 'Content-Type': 'image/jpeg' },
        ...asItIs,
      }),
    ),
  removePiecePhoto: (piece: string) =>
    writing(() =>
      server.DELETE('/api/trunk/pieces/{piece_id}/photo', { params: { path: { piece_id: piece } } }),
    ),
  cableTest: (piece: string) =>
    reading(() => server.GET('/api/trunk/pieces/{piece_id}/test', { params: { path: { piece_id: piece } } })),
  testPiece: (piece: string, pairs: Schemas['ContactPairIn'][]) =>
    reading(() =>
      server.POST('/api/trunk/pieces/{piece_id}/test', {
        params: { path: { piece_id: piece } },
        body: { pairs },
      }),
    ),
  standInTest: (piece: string, fault: Schemas['CableFault'] | null, seed: number) =>
    reading(() =>
      server.POST('/api/trunk/pieces/{piece_id}/stand-in', {
        params: { path: { piece_id: piece } },
        body: { fault, seed },
      }),
    ),
  trunkOf: (job: string, chosen: Readonly<Record<string, readonly string[]>>) =>
    reading(() =>
      Object.keys(chosen).length
        ? server.POST('/api/jobs/{job_id}/trunk', {
            params: { path: { job_id: job } },
            body: { chosen: chosen as Record<string, string[]> },
          })
        : server.GET('/api/jobs/{job_id}/trunk', { params: { path: { job_id: job } } }),
    ),
  claimTrunk: (job: string, chosen: Readonly<Record<string, readonly string[]>>) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/trunk/claim', {
        params: { path: { job_id: job } },
        body: { chosen: chosen as Record<string, string[]> },
      }),
    ),
  releaseTrunk: (job: string) =>
    reading(() => server.DELETE('/api/jobs/{job_id}/trunk/claim', { params: { path: { job_id: job } } })),
  tickTrunk: (job: string, ticks: readonly TrunkTick[]) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/trunk/ticks', {
        params: { path: { job_id: job } },
        body: { ticks: [...ticks] },
      }),
    ),
  labelPapers: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/paper/labels', { params: { path: { job_id: job } } })),
  addPhoto: (job: string, query: PhotoOf, photo: Blob) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/log/photos', {
        params: { path: { job_id: job }, query },
        body: binary(photo),
        headers: { 'Content-Type': 'image/jpeg' },
        ...asItIs,
      }),
    ),
  removePhoto: (job: string, photo: string) =>
    writing(() =>
      server.DELETE('/api/jobs/{job_id}/log/photos/{photo_id}', {
        params: { path: { job_id: job, photo_id: photo } },
      }),
    ),
  sync: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/sync', { params: { path: { job_id: job } } })),
  sendSyncFile: (job: string, file: File, id = newId()) =>
    send<Sync['files'][number]>(file, (body, headers) =>
      server.POST('/api/jobs/{job_id}/sync/files', {
        params: { path: { job_id: job }, query: { name: file.name, id } },
        body,
        headers,
        ...asItIs,
      }),
    ),
  setSyncSide: (job: string, file: string, side: string) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/sync/files/{file_id}/side', {
        params: { path: { job_id: job, file_id: file } },
        body: { side },
      }),
    ),
  removeSyncFile: (job: string, file: string) =>
    away(() =>
      server.DELETE('/api/jobs/{job_id}/sync/files/{file_id}', {
        params: { path: { job_id: job, file_id: file } },
      }),
    ),
  matchSync: (job: string) =>
    writing(() => server.POST('/api/jobs/{job_id}/sync/match', { params: { path: { job_id: job } } })),
  cancelSync: (job: string) =>
    writing(() => server.POST('/api/jobs/{job_id}/sync/match/cancel', { params: { path: { job_id: job } } })),
  nudgeClip: (job: string, file: string, samples: number, request: string) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/sync/clips/{file_id}/nudge', {
        params: { path: { job_id: job, file_id: file } },
        body: { samples, request },
      }),
    ),
  placeClip: (job: string, file: string, where: PlaceIn, request: string) =>
    writing(() =>
      server.PUT('/api/jobs/{job_id}/sync/clips/{file_id}/place', {
        params: { path: { job_id: job, file_id: file } },
        body: { ...where, request },
      }),
    ),
  waves: (job: string, file: string, at: number, span: number) =>
    reading(() =>
      server.GET('/api/jobs/{job_id}/sync/clips/{file_id}/waves', {
        params: { path: { job_id: job, file_id: file }, query: { at_s: at, span_s: span } },
      }),
    ),
  equipment: () => reading(() => server.GET('/api/equipment')),
  saveEquipment: (files: ClassFile[]) => writing(() => server.POST('/api/equipment', { body: { files } })),
  archive: () => reading<Blob>(() => server.GET('/api/equipment-archive', { parseAs: 'blob' })),
  saveArchive: (file: File) =>
    writing(() =>
      server.POST('/api/equipment-archive', {
        params: { query: { name: file.name } },
        headers: { 'Content-Type': 'application/octet-stream' },
        body: binary(file),
        ...asItIs,
      }),
    ),
  classSchema: () =>
    reading(() =>
      server.GET('/api/equipment-schema/{of}', { params: { path: { of: 'device' } }, parseAs: 'text' }),
    ),
  previewClass: (file: ClassFile) => reading(() => server.POST('/api/equipment/preview', { body: file })),
  classDraft: (id: string) =>
    reading(() => server.GET('/api/equipment/{class_id}', { params: { path: { class_id: id } } })),
  builtInDraft: (id: string) =>
    reading(() => server.GET('/api/built-in/{class_id}', { params: { path: { class_id: id } } })),
  readDatasheet: (sheet: Datasheet) =>
    reading(() => server.POST('/api/equipment/datasheet', { body: sheet })),
  testJob: (id: string, job = newId()) =>
    writing(() =>
      server.POST('/api/equipment/{class_id}/test-job', {
        params: { path: { class_id: id }, query: { id: job } },
      }),
    ),
  deleteClass: (id: string) =>
    writing(() => server.DELETE('/api/equipment/{class_id}', { params: { path: { class_id: id } } })),
  jobClasses: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/classes', { params: { path: { job_id: job } } })),
  tryClass: (job: string, file: ClassFile) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/classes/try', { params: { path: { job_id: job } }, body: file }),
    ),
  keepClass: (job: string, id: string) =>
    writing(() =>
      server.POST('/api/jobs/{job_id}/classes/{class_id}/keep', {
        params: { path: { job_id: job, class_id: id } },
      }),
    ),
  searchFault: (job: string, body: Schemas['SearchIn']) =>
    reading(() =>
      server.POST('/api/jobs/{job_id}/fault-search', { params: { path: { job_id: job } }, body }),
    ),
  sockets: (job: string) =>
    reading(() => server.GET('/api/jobs/{job_id}/sockets', { params: { path: { job_id: job } } })),
  join: (job: string, body: Join) =>
    reading(() => server.POST('/api/jobs/{job_id}/joined', { params: { path: { job_id: job } }, body })),
  rigs: (text: string, first: boolean) =>
    reading(() => server.GET('/api/rigs', { params: { query: { text, first } } })),
  takeRig: (text: string, approach: string, id: string) =>
    writing(() =>
      server.POST('/api/rigs/job', { body: { text, approach: approach as Schemas['Approach'], id } }),
    ),
  joinTwo: (ends: Ends) => reading(() => server.POST('/api/two-things', { body: ends })),
  takeJoined: (ends: Ends, number: number, id: string) =>
    writing(() => server.POST('/api/two-things/job', { body: { ...ends, number, id } })),
  tools: {
    convert: (value: number, unit: string, to: string) =>
      reading(() => server.GET('/api/tools/convert', { params: { query: { value, unit, to } } })),
    delay: (measure: string, length: number, fps: string) =>
      reading(() => server.GET('/api/tools/delay', { params: { query: { [measure]: length, fps } } })),
    timecode: (timecode: string, fps: string, add: string, to: string) =>
      reading(() => server.GET('/api/tools/timecode', { params: { query: { timecode, fps, add, to } } })),
    drift: (a: number, b: number, fps: string, hours: number) =>
      reading(() => server.GET('/api/tools/drift', { params: { query: { a, b, fps, hours } } })),
  },
  examples: () => reading(() => server.GET('/api/examples')),
  openExample: (example: string, id: string) =>
    writing(() =>
      server.POST('/api/examples/{example_id}', {
        params: { path: { example_id: example }, query: { id } },
      }),
    ),
  looseFiles: () => writing(() => server.POST('/api/loose-files')),
  copies: () => reading(() => server.GET('/api/copies')),
  makeCopy: () => writing(() => server.POST('/api/copies')),
}
