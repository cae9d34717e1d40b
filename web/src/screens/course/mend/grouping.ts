import { localDateOf, type CheckResult, type Finding } from '@wickerframe/core'

export const groupings = ['move', 'module', 'rule'] as const
export type Grouping = (typeof groupings)[number]

export interface FindingGroup {
  title: string
  findings: Finding[]
}

type Known = readonly { name: string; email: string }[]

/** Whose move a finding is, in words; people of the course by their names. */
export const whoseMove = (finding: Finding, people: Known): string =>
  finding.mender === 'instructor'
    ? (people.find((person) => person.email === finding.owner)?.name ??
      finding.owner ??
      'The instructor')
    : finding.mender === 'designer'
      ? 'The designers'
      : 'The administrator'

const titlesOf: Readonly<Record<Grouping, (finding: Finding, people: Known) => string>> = {
  move: whoseMove,
  module: (finding) => finding.places[0]?.place.path[0] ?? 'The course',
  rule: (finding) => finding.title,
}

/** Findings by who must act, by the module they stand in, or by their rule; a finding of many modules stands in each. */
export const grouped = (
  findings: readonly Finding[],
  by: Grouping,
  people: Known = [],
): FindingGroup[] => {
  const groups = new Map<string, Finding[]>()
  const add = (title: string, finding: Finding) =>
    groups.set(title, [...(groups.get(title) ?? []), finding])
  for (const finding of findings) {
    if (by !== 'module') add(titlesOf[by](finding, people), finding)
    else {
      const modules = new Map<string, Finding['places']>()
      for (const place of finding.places)
        modules.set(place.place.path[0] ?? 'The course', [
          ...(modules.get(place.place.path[0] ?? 'The course') ?? []),
          place,
        ])
      for (const [title, places] of modules)
        add(title, { ...finding, message: places[0]?.message ?? finding.message, places })
    }
  }
  return [...groups].map(([title, list]) => ({ title, findings: list }))
}

/** Findings as they are looked at: open ones, waived ones, and what is for information only. */
export const sorted = (
  result: CheckResult,
): { open: Finding[]; waived: Finding[]; information: Finding[] } => {
  const isWaived = (finding: Finding) => finding.places.every((place) => place.waived)
  return {
    open: result.findings.filter((finding) => finding.strength !== 'may' && !isWaived(finding)),
    waived: result.findings.filter((finding) => finding.strength !== 'may' && isWaived(finding)),
    information: result.findings.filter((finding) => finding.strength === 'may'),
  }
}

/** The Monday after a date, `YYYY-MM-DD`. */
export const nextMonday = (date: string): string => {
  const at = new Date(`${date}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() + ((8 - at.getUTCDay()) % 7 || 7))
  return localDateOf(at.toISOString(), 'UTC')
}

/** Whether some findings are somebody's move and some are others'. */
export const isShared = (findings: readonly Finding[], email: string): boolean =>
  findings.some(({ owner }) => owner === email) && findings.some(({ owner }) => owner !== email)

/** One's own findings before those of others, each in their order. */
export const mineFirst = (findings: readonly Finding[], email: string): Finding[] => [
  ...findings.filter(({ owner }) => owner === email),
  ...findings.filter(({ owner }) => owner !== email),
]
