/**
 * The stations that exist, in working order, each with the key that follows `g`; more: the pages that belong to it, which the
 * navigation lists beneath it while one of them is open.
 */
export const STATIONS = [
  { name: 'job', label: 'Equipment', key: 'j', more: [{ name: 'gear-tests', label: 'Know your gear' }] },
  { name: 'runs', label: 'Connections', key: 'r', more: [{ name: 'leads', label: 'Your cables' }] },
  {
    name: 'levels',
    label: 'Levels',
    key: 'l',
    more: [
      { name: 'gain', label: 'Gain plan' },
      { name: 'pads', label: 'Attenuators' },
    ],
  },
  { name: 'line-up', label: 'Line-up', key: 'i', more: [{ name: 'simulation', label: 'Simulation' }] },
  { name: 'clock', label: 'Timecode', key: 'c', more: [{ name: 'sync', label: 'Sync files' }] },
  { name: 'walk', label: 'Checklist', key: 'w', more: [] },
  { name: 'trunk', label: 'Trunk', key: 't', more: [] },
  { name: 'day', label: 'Day', key: 'd', more: [] },
  { name: 'log', label: 'Log', key: 'o', more: [{ name: 'files', label: 'Files' }] },
  { name: 'wrong', label: 'What is wrong?', key: 'x', more: [{ name: 'drill', label: 'Drill' }] },
] as const satisfies readonly Station[]

interface Page {
  readonly name: string
  readonly label: string
}
interface Station extends Page {
  readonly key: string
  readonly more: readonly Page[]
}

/** What each page is for, in a line; it can be put away. */
export const PURPOSES: Readonly<Record<string, string>> = {
  job: 'What is shot, with what: devices, who is heard, and what holds for the whole job.',
  runs: 'Every recorded track, traced back to its source. What stands above is to be put right first.',
  levels: 'One track from its source to the file: where it could clip, and what makes its noise.',
  'line-up': 'Send tone, read it at the far end, and let what was read take the place of typical figures.',
  clock: 'Which device is the master, when to jam, and by how much pictures are delayed.',
  walk: 'What is looked at, touched and heard on the set before the first take.',
  trunk: 'Which piece lies in which run, what is short, what is packed; and the paper that goes along.',
  day: 'What to do when, so that nothing runs out in a take and the set is held least often.',
  log: 'Takes as they are shot: three taps each, by everybody at once, with or without a connection.',
  files: 'What recorders and cameras wrote, held against the log; and copies that are checked.',
  drill: 'A fault is hidden in a rig: find it with what a set allows, in the shortest order.',
  wrong:
    'Something is heard or seen that should not be: the next test is the one that tells most for its time.',
}

/** Pages that are used in the hand: there everything else is in the way, and they say themselves what has not arrived. */
export const inHand = (page: unknown) =>
  page === 'walk' || page === 'trunk' || page === 'day' || page === 'log'

/** Whether a page is a station's own, or one that belongs to it. */
export const isOf = (station: Station, page: unknown) =>
  station.name === page || station.more.some(({ name }) => name === page)

export const KEYS = [
  ['/', 'type a connection or a command'],
  [
    'g then j, r, l, i, c, w, t, d, o, x',
    'go to Equipment, Connections, Levels, Line-up, Timecode, Checklist, Trunk, Day, Log, What is wrong?',
  ],
  ['r, c, n', 'on Log: roll, cut, note'],
  ['g then k', 'know your gear: test the devices of this job'],
  ['g then m', 'make a cable of your own'],
  ['g then p', 'gain plan for the whole job'],
  ['g then b', 'attenuators'],
  ['g then v', 'simulation: listen to the plan'],
  ['g then s', 'sync files'],
  ['g then f', 'files of the day'],
  ['g then z', 'drill: find a hidden fault'],
  ['[, ] and , .', 'move the clip that is chosen by a frame, by a sample'],
  ['j, k', 'next, previous row'],
  ['Enter', 'open the row in Levels'],
  ['f', 'next finding'],
  ['a', 'apply its fix, or show options via another device'],
  ['u', 'undo'],
  ['Shift u', 'redo'],
  ['h', 'history'],
  ['?', 'help and shortcuts'],
] as const
