import { z } from 'zod'
import { Finding, type CheckResult } from '../check/index.ts'

/** One thing to mend in several courses, and how many of them it alone, or after those before it, would bring to ready. */
export const MendAction = z.strictObject({
  rule: z.string(),
  title: z.string(),

  /** The sentence of the finding in the first course. */
  example: z.string(),
  mender: Finding.shape['mender'],

  /** Whether Wickerframe knows the change for every place. */
  byMachine: z.boolean(),
  courses: z.array(z.string()),

  /** Minutes over all courses. */
  effortMinutes: z.number(),

  /** Courses that become ready when this is mended after the actions before it. */
  becomeReady: z.number(),
})
export type MendAction = z.output<typeof MendAction>

const actionKey = (finding: Finding): string =>
  `${finding.rule}|${finding.places[0]?.place.part ?? ''}`

/**
 * The few actions that bring the most courses to ready: at each step the action that readies most courses for its
 * effort (greedy weighted cover, Chvátal 1979), then the one that stands in most courses. Ties go by rule and part.
 */
export const mendFirst = (
  results: readonly Pick<CheckResult, 'course' | 'findings'>[],
  most = 6,
): MendAction[] => {
  const actions = new Map<string, { findings: { course: string; finding: Finding }[] }>()
  const open = new Map<string, Set<string>>()
  for (const result of results) {
    for (const finding of result.findings) {
      if (finding.strength !== 'must' || finding.places.every((place) => place.waived)) continue
      const key = actionKey(finding)
      actions.set(key, {
        findings: [...(actions.get(key)?.findings ?? []), { course: result.course.id, finding }],
      })
      const left = open.get(result.course.id) ?? new Set<string>()
      open.set(result.course.id, left.add(key))
    }
  }
  const chosen: MendAction[] = []
  const keys = [...actions.keys()].sort()
  while (chosen.length < most && keys.length > 0) {
    const scored = keys.map((key) => {
      const findings = actions.get(key)?.findings ?? []
      const readied = [...open.values()].filter((left) => left.size === 1 && left.has(key)).length
      const touched = [...open.values()].filter((left) => left.has(key)).length
      const effort = findings.reduce((sum, { finding }) => sum + finding.effortMinutes, 0)
      return { key, readied, touched, effort }
    })
    const best = scored.reduce((a, b) =>
      b.readied / (1 + b.effort) > a.readied / (1 + a.effort) ||
      (b.readied === a.readied && b.readied === 0 && b.touched > a.touched)
        ? b
        : a,
    )
    keys.splice(keys.indexOf(best.key), 1)
    const findings = actions.get(best.key)?.findings ?? []
    const first = findings[0]
    if (!first) continue
    for (const left of open.values()) left.delete(best.key)
    chosen.push({
      rule: first.finding.rule,
      title: first.finding.title,
      example: first.finding.places[0]?.message ?? '',
      mender: first.finding.mender,
      byMachine: findings.every(({ finding }) =>
        finding.places.every((place) => place.mend !== null),
      ),
      courses: [...new Set(findings.map((finding) => finding.course))],
      effortMinutes: best.effort,
      becomeReady: best.readied,
    })
  }
  return chosen
}
