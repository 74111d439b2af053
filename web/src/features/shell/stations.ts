/** The stations that exist, in working order, each with the key that follows `g` and the pages that belong to it. */
export const STATIONS = [
  { name: 'job', label: 'Equipment', key: 'j', pages: ['job', 'gear-tests'] },
  { name: 'runs', label: 'Connections', key: 'r', pages: ['runs', 'leads'] },
  { name: 'levels', label: 'Levels', key: 'l', pages: ['levels', 'gain', 'pads'] },
  { name: 'line-up', label: 'Line-up', key: 'i', pages: ['line-up', 'bench'] },
  { name: 'clock', label: 'Timecode', key: 'c', pages: ['clock', 'sync'] },
  { name: 'walk', label: 'Checklist', key: 'w', pages: ['walk'] },
] as const satisfies readonly { name: string; label: string; key: string; pages: readonly string[] }[]

export const KEYS = [
  ['/', 'type a connection or a command'],
  ['g then j, r, l, i, c, w', 'go to Equipment, Connections, Levels, Line-up, Timecode, Checklist'],
  ['g then k', 'know your gear: test the devices of this job'],
  ['g then m', 'make a cable of your own'],
  ['g then p', 'gain plan for the whole job'],
  ['g then b', 'attenuators'],
  ['g then v', 'simulation: listen to the plan'],
  ['g then s', 'sync files'],
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
