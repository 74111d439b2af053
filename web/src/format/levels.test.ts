import { describe, expect, it } from 'vitest'

import { formatLevel, formatSigned, TAPE } from './levels'

describe('levels as they are printed', () => {
  it('uses a true minus sign and never a negative zero', () => {
    expect(formatLevel(-20.4)).toBe('−20')
    expect(formatLevel(-0.2)).toBe('0')
    expect(formatLevel(14.12, 1)).toBe('14.1')
  })
  it('shows silence as a dash', () => {
    expect(formatLevel(null)).toBe('–')
  })
  it('gives gain its sign', () => {
    expect(formatSigned(38)).toBe('+38 dB')
    expect(formatSigned(-20.5)).toBe('−20.5 dB')
    expect(formatSigned(0)).toBe('0 dB')
  })
  it('has a tape colour for each of the ten digits', () => {
    expect(Object.keys(TAPE)).toHaveLength(10)
  })
})
