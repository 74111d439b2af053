import { describe, expect, it } from 'vitest'

import css from './tokens.css?raw'

/** Contrast of two sRGB colours. [WCAG 2.2, relative luminance and contrast ratio, from memory] */
function contrast(one: string, other: string): number {
  const luminance = (hex: string) => {
    const parts = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
    const linear = parts.map((part) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4))
    return 0.2126 * linear[0]! + 0.7152 * linear[1]! + 0.0722 * linear[2]!
  }
  const [light, dark] = [luminance(one), luminance(other)].sort((a, b) => b - a)
  return (light! + 0.05) / (dark! + 0.05)
}

function themes(): Record<string, Record<string, string>> {
  const found: Record<string, Record<string, string>> = {}
  for (const [, selector, body] of css.matchAll(/(:root[^{]*)\{([^}]*)\}/g)) {
    const name = /data-theme='(\w+)'/.exec(selector!)?.[1] ?? 'light'
    const own = Object.fromEntries(
      [...body!.matchAll(/--([\w-]+):\s*(#[0-9a-f]{6})/g)].map((m) => [m[1]!, m[2]!]),
    )
    found[name] = { ...found.light, ...own }
  }
  return found
}

describe.each(Object.entries(themes()))('the %s theme', (name, tokens) => {
  const grounds = ['paper', 'sheet', 'chalk']
  it.each(['ink', 'ink-soft', 'stop', 'caution', 'note'])('%s reads on every ground', (ink) => {
    for (const ground of grounds) expect(contrast(tokens[ink]!, tokens[ground]!)).toBeGreaterThanOrEqual(4.5)
  })
  it('reads on its frame and its buttons', () => {
    expect(contrast(tokens['frame-ink']!, tokens.frame!)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(tokens['accent-ink']!, tokens.accent!)).toBeGreaterThanOrEqual(4.5)
  })
  it('draws lines and ribbons that can be seen', () => {
    expect(contrast(tokens['line-strong']!, tokens.paper!)).toBeGreaterThanOrEqual(3)
    expect(contrast(tokens.accent!, tokens['ribbon-soft']!)).toBeGreaterThanOrEqual(3)
  })
  it(name === 'sun' ? 'is as strong as full sun needs' : 'keeps its own ground', () => {
    const least = name === 'sun' ? 15 : 10
    expect(contrast(tokens.ink!, tokens.paper!)).toBeGreaterThanOrEqual(least)
  })
})

describe('contrast itself', () => {
  it('is 21 for black on white and 1 for a colour on itself', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21)
    expect(contrast('#8a5a00', '#8a5a00')).toBeCloseTo(1)
  })
})
