/** The stations that exist, in working order, each with the key that follows `g`. */
export const STATIONS = [
  { name: 'job', label: 'Job', key: 'j' },
  { name: 'runs', label: 'Runs', key: 'r' },
  { name: 'levels', label: 'Levels', key: 'l' },
] as const

export const KEYS = [
  ['/', 'say a run'],
  ['g then j, r, l', 'go to Job, Runs, Levels'],
  ['g then m', 'make a lead of your own'],
  ['j, k', 'next, previous row'],
  ['Enter', 'open the row in Levels'],
  ['f', 'next finding'],
  ['a', 'apply its fix, or ask for a way by another box'],
  ['u', 'undo'],
  ['Shift u', 'redo'],
  ['h', 'history'],
  ['?', 'all keys'],
] as const
