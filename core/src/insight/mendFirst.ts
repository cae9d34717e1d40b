import { z } from 'zod'
import { Finding } from '../check/index.ts'
import { isOpenMust, partOf, type OpenMust } from './openMusts.ts'

/** What one thing to mend is: a rule, broken at a part of the template (null: at none). */
export const MendTarget = z.strictObject({ rule: z.string(), part: z.string().nullable() })
export type MendTarget = z.output<typeof MendTarget>

/** One thing to mend in several courses, and how many of them it alone, or after those before it, would bring to ready. */
export const MendAction = MendTarget.extend({
  title: z.string(),

  /** The sentence of the finding in the first course. */
  example: z.string(),
  mender: Finding.shape['mender'],

  /** Whether Wickerframe knows the change for every place. */
  byMachine: z.boolean(),
  /** Open places in all courses. */
  places: z.number(),
  courses: z.array(z.string()),

  /** E-mails of those whose move it is. */
  owners: z.array(z.string()),

  /** Minutes over all courses. */
  effortMinutes: z.number(),

  /** Courses that become ready when this is mended after the actions before it. */
  becomeReady: z.number(),
})
export type MendAction = z.output<typeof MendAction>

/** The open musts of a course that are this one thing, with only those of their places that are open. */
export const findingsOf = (findings: readonly Finding[], { rule, part }: MendTarget): Finding[] =>
  findings
    .filter((finding) => finding.rule === rule && partOf(finding) === part && isOpenMust(finding))
    .map((finding) => ({ ...finding, places: finding.places.filter(({ waived }) => !waived) }))

/** Whether a course has this one thing to mend. */
export const standsIn = (musts: readonly OpenMust[], target: MendTarget): boolean =>
  musts.some(({ rule, part }) => rule === target.rule && part === target.part)

interface Told {
  course: string
  must: OpenMust
}

/**
 * The few actions that bring the most courses to ready: at each step the action that readies most courses for its
 * effort (greedy weighted cover, Chvátal 1979), then the one that stands in most courses. Ties go by rule and part.
 */
export const mendFirst = (
  results: readonly {
    readonly course: { readonly id: string }
    readonly musts: readonly OpenMust[]
  }[],
  most = 6,
): MendAction[] => {
  const told = new Map<string, Told[]>()
  const open = new Map<string, Set<string>>()
  for (const { course, musts } of results)
    for (const must of musts) {
      const key = `${must.rule}|${must.part ?? ''}|${must.mender}`
      const known = told.get(key)
      if (known) known.push({ course: course.id, must })
      else told.set(key, [{ course: course.id, must }])
      const left = open.get(course.id)
      if (left) left.add(key)
      else open.set(course.id, new Set([key]))
    }
  const effort = new Map(
    [...told].map(([key, all]) => [
      key,
      all.reduce((sum, { must }) => sum + must.effortMinutes, 0),
    ]),
  )
  const chosen: MendAction[] = []
  const keys = new Set([...told.keys()].sort())
  while (chosen.length < most && keys.size > 0) {
    const readied = new Map<string, number>()
    const touched = new Map<string, number>()
    for (const left of open.values()) {
      for (const key of left) touched.set(key, (touched.get(key) ?? 0) + 1)
      const [only] = left
      if (left.size === 1 && only !== undefined) readied.set(only, (readied.get(only) ?? 0) + 1)
    }
    const gain = (key: string): number => (readied.get(key) ?? 0) / (1 + (effort.get(key) ?? 0))
    const best = [...keys].reduce((a, b) =>
      gain(b) > gain(a) ||
      ((readied.get(a) ?? 0) === 0 &&
        (readied.get(b) ?? 0) === 0 &&
        (touched.get(b) ?? 0) > (touched.get(a) ?? 0))
        ? b
        : a,
    )
    keys.delete(best)
    for (const left of open.values()) left.delete(best)
    const action = actionOf(told.get(best) ?? [], readied.get(best) ?? 0)
    if (action) chosen.push(action)
  }
  return chosen
}

const actionOf = (told: readonly Told[], becomeReady: number): MendAction | null => {
  const [first] = told
  if (!first) return null
  const places = told.flatMap(({ must }) => must.places)
  const { rule, part, title, example, mender } = first.must
  return {
    rule,
    part,
    title,
    example,
    mender,
    byMachine: places.every(({ byMachine }) => byMachine),
    places: places.length,
    courses: [...new Set(told.map(({ course }) => course))],
    owners: [...new Set(told.flatMap(({ must }) => must.owner ?? []))].sort(),
    effortMinutes: told.reduce((sum, { must }) => sum + must.effortMinutes, 0),
    becomeReady,
  }
}
