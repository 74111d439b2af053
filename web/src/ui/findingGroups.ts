import type { Finding, Severity } from '@/api/client'

export interface FindingGroup {
  readonly severity: Severity
  readonly title: string
  readonly findings: readonly Finding[]
}

const TITLES = [
  ['stop', 'Before you can shoot'],
  ['caution', 'To decide'],
  ['note', 'Good to know'],
] as const

/** Findings by what they ask for, the gravest first; a group that has none is left out. */
export const findingGroups = (findings: readonly Finding[]): readonly FindingGroup[] =>
  TITLES.map(([severity, title]) => ({
    severity,
    title,
    findings: findings.filter((finding) => finding.severity === severity),
  })).filter((group) => group.findings.length)

/** One line: whether one can shoot, and what is to be done first. */
export function verdictWords(findings: readonly Finding[]): string {
  const count = (severity: Severity) => findings.filter((finding) => finding.severity === severity).length
  const [stops, cautions] = [count('stop'), count('caution')]
  if (stops) return `Not ready: ${stops === 1 ? 'one problem' : `${stops} problems`} would ruin a recording`
  if (cautions) return `Ready, once you have decided ${cautions === 1 ? 'one thing' : `${cautions} things`}`
  return 'Ready: record a test, and listen to it at the last point there is'
}
