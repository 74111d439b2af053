import { expect, test } from 'vitest'

import { clockTime, lasting, minutesOf, span, timesOf } from './time'

test('minutes are read as they are written', () => {
  for (const minutes of [0, 59, 480, 750, 1439]) expect(minutesOf(clockTime(minutes))).toBe(minutes)
  expect(clockTime(1500)).toBe('01:00')
  expect([minutesOf('8:00'), minutesOf('24:00'), minutesOf('8:61'), minutesOf('noon')]).toEqual([
    480,
    null,
    null,
    null,
  ])
  expect(timesOf('8:00, 12:30 and 15.00')).toEqual([480, 750, 900])
  expect([timesOf('8:00, soon'), timesOf('')]).toEqual([null, []])
  expect([span(45.9), span(60), span(166.7)]).toEqual(['45 min', '1 h', '2 h 46 min'])
  expect([lasting(4.21), lasting(65), lasting(3753)]).toEqual(['4.2 s', '1:05', '1:02:33'])
})
