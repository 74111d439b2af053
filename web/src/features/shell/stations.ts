/** The stations that exist, in working order, each with the key that follows `g` and the pages that belong to it. */
export const STATIONS = [
  { name: 'job', label: 'Job', key: 'j', pages: ['job'] },
  { name: 'runs', label: 'Runs', key: 'r', pages: ['runs', 'leads'] },
  { name: 'levels', label: 'Levels', key: 'l', pages: ['levels', 'gain', 'pads'] },
  { name: 'line-up', label: 'Line-up', key: 'i', pages: ['line-up', 'bench'] },
  { name: 'clock', label: 'Clock', key: 'c', pages: ['clock', 'sync'] },
  { name: 'walk', label: 'Walk', key: 'w', pages: ['walk'] },
] as const satisfies readonly { name: string; label: string; key: string; pages: readonly string[] }[]

export const KEYS = [
  ['/', 'say a run'],
  ['g then j, r, l, i, c, w', 'go to Job, Runs, Levels, Line-up, Clock, the walk'],
  ['g then m', 'make a lead of your own'],
  ['g then p', 'gain plan for the whole job'],
  ['g then b', 'pad bench'],
  ['g then v', 'bench: hear the plan'],
  ['g then s', 'lay files over each other'],
  ['[, ] and , .', 'move the clip that is chosen by a frame, by a sample'],
  ['j, k', 'next, previous row'],
  ['Enter', 'open the row in Levels'],
  ['f', 'next finding'],
  ['a', 'apply its fix, or ask for a way by another box'],
  ['u', 'undo'],
  ['Shift u', 'redo'],
  ['h', 'history'],
  ['?', 'all keys'],
] as const
