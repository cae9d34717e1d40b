import { addDays, instructionalWeeks } from '../calendar/index.ts'
import { checkCourse, type Expectation, type Finding } from '../check/index.ts'
import type { Course, Facts } from '../course/index.ts'
import { firstCourse, saidFacts } from '../firstCourse/index.ts'
import { analysePage, type PageFacts } from '../page/index.ts'
import { remember } from '../remember/index.ts'
import { ruleById } from '../rules/index.ts'
import type { Template } from '../template/index.ts'
import { variantFacts, variantsOf, variantWords } from '../variant/index.ts'

/** What the check would say of the first course of a kind, though it was just deployed and filled in perfectly. */
export interface FirstFinding {
  rule: string
  strength: Finding['strength']
  /** Key of the part; null for the course as a whole. */
  part: string | null
  message: string
  /** The week of the term from which on it is said; null: from before its first day on. */
  fromWeek: number | null
  /** The kind of course, e.g. `on campus, 16 weeks`. */
  variant: string
}

/** What is known of one kind of course. */
export interface FirstReading {
  variant: string
  /** What no kind before it was told; null where it cannot be worked out, so that nothing is known of it. */
  found: FirstFinding[] | null
}

const mostPages = 2000

/**
 * What is said of a course on each day from the day before its term to its last, once for each rule and part.
 * @returns null where it cannot be checked
 */
export const findingsOverTerm = (
  template: Template,
  facts: Facts,
  course: Course,
): Omit<FirstFinding, 'variant'>[] | null => {
  const found = new Map<string, Omit<FirstFinding, 'variant'>>()
  const worked = new Map<string, Expectation>()
  const pageOf = remember(mostPages, (html: string): PageFacts => analysePage(html))
  const { firstDay, lastDay } = facts.term
  const weeks = instructionalWeeks(facts)
  const weekOf = (day: string): number | null =>
    weeks.findLast(({ first }) => first <= day)?.number ?? null
  let asOf = addDays(firstDay, -1)
  while (asOf <= lastDay) {
    const result = checkCourse({ template, facts, course, asOf, mends: false, worked, pageOf })
    if (!result.ok) return null
    for (const { rule, strength, places } of result.value.findings) {
      if (strength === 'may' || ruleById(rule)?.onlyInCourse) continue
      for (const { place, message } of places) {
        const key = `${rule} ${place.part}`
        if (!found.has(key))
          found.set(key, { rule, strength, part: place.part, message, fromWeek: weekOf(asOf) })
      }
    }
    // Until then nothing else would be said.
    const { until } = result.value.holds
    asOf = until !== null && until > asOf ? until : addDays(lastDay, 1)
  }
  return [...found.values()]
}

/**
 * Proofreads a template as the first course would: worked out for each kind of course it serves, deployed, filled in perfectly,
 * and checked for each day of its term. What is found is the template’s own, whoever is told. One kind after another, so that
 * what is known can be shown meanwhile.
 */
export function* firstFindings(template: Template): Generator<FirstReading> {
  const variants = variantsOf(template)
  const known = new Set<string>()
  for (const variant of variants) {
    const facts = saidFacts(variantFacts(variant), template)
    const course = firstCourse(template, facts, facts.term.firstDay)
    const found = course.ok ? findingsOverTerm(template, facts, course.value) : null
    const words = variantWords(variant, variants)
    const anew = found?.flatMap((finding) => {
      const key = `${finding.rule} ${finding.part}`
      if (known.has(key)) return []
      known.add(key)
      return [{ ...finding, variant: words }]
    })
    yield { variant: words, found: anew ?? null }
  }
}
