import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { faultless, faultlessCases } from '../check/faultless.testing.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { firstCourse } from '../firstCourse/index.ts'
import { findingsOverTerm } from './firstFindings.ts'

/** What is due at the end of a stretch may fall into a break of the term: the calendar’s affair. */
const ofTheCalendar = new Set(['due-in-break'])

/** A third of the cases, as each is checked on some twenty days. */
const { numRuns, seed } = propertyRuns()
const runs = { numRuns: Math.ceil(numRuns / 3), seed }

describe('the first course of any sound template', () => {
  it('is told nothing on any day, in any language and term, with any names, exceptions and layers', () => {
    fc.assert(
      fc.property(faultlessCases, (given) => {
        const { template, facts } = faultless(given)
        const course = firstCourse(template, facts, facts.term.lastDay)
        if (!course.ok) throw new Error(JSON.stringify(course.problems))
        const told = findingsOverTerm(template, facts, course.value)
        expect(
          (told ?? []).length === 0
            ? told
            : told
                ?.filter(({ rule }) => !ofTheCalendar.has(rule))
                .map(
                  ({ rule, part, fromWeek, message }) => `${rule} ${part} ${fromWeek} ${message}`,
                ),
        ).toEqual([])
      }),
      runs,
    )
  })
})
