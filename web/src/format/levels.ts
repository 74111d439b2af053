/** Levels as they are printed: a true minus sign, and words for silence. Nothing is worked out here. */
export function formatLevel(value: number | null | undefined, digits = 0): string {
  if (value === null || value === undefined) return '–'
  const rounded = value.toFixed(digits)
  const zero = Number(rounded) === 0
  return (zero ? (0).toFixed(digits) : rounded).replace('-', '−')
}

/** A number as it stands on a knob: 40, −12.5. */
export const plainNumber = (value: number) => String(Number(value.toFixed(2))).replace('-', '−')

/** With its sign, as gain is spoken of: +38 dB. */
export function formatSigned(value: number): string {
  if (value === 0) return '0 dB'
  return `${value > 0 ? '+' : '−'}${Math.abs(value)} dB`
}

/** A change to the tenth, with its sign: +6.0. */
export function formatStep(value: number | null): string {
  return `${(value ?? 0) > 0 ? '+' : ''}${formatLevel(value, 1)}`
}

/** Colours of the tape bands by name. [IEC 60062] */
export const TAPE: Readonly<Record<string, string>> = {
  black: '#1c1c1c',
  brown: '#7a4a21',
  red: '#c3271b',
  orange: '#e07b17',
  yellow: '#e8c520',
  green: '#2f7d3b',
  blue: '#24549c',
  violet: '#6f3f93',
  grey: '#8a8a8a',
  white: '#ffffff',
}

/** A resistance as it stands on a parts list: 150 Ω, 4.7 kΩ. */
export function formatOhm(ohm: number): string {
  const digits = (value: number) => String(Number(value.toPrecision(3)))
  return ohm < 1000 ? `${digits(ohm)} Ω` : ohm < 1e6 ? `${digits(ohm / 1000)} kΩ` : `${digits(ohm / 1e6)} MΩ`
}

/** The size of a file: 15 kB, 0.3 MB. */
export const formatSize = (bytes: number) =>
  bytes < 1e5 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`
