import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { faultless, faultlessCases, treatmentNames, treatments } from './faultless.testing.ts'
import { checkCourse } from './index.ts'

/**
 * Somebody’s word stands in no course; what is due at the end of a stretch may fall into its break; short answers make a short
 * syllabus.
 */
const toldRightly = new Set(['tool-not-attested', 'due-in-break', 'syllabus-attached'])

describe('a course in which nothing is wrong', () => {
  it('has no open finding, in any language and term, whatever platforms and copies did to it', () => {
    fc.assert(
      fc.property(faultlessCases, fc.subarray(treatmentNames), (given, treated) => {
        const { course, ...about } = faultless(given)
        for (const name of treated) treatments[name](course)
        const result = checkCourse({ ...about, course })
        if (!result.ok) throw new Error(JSON.stringify(result.problems))
        expect(
          result.value.findings
            .filter(({ rule, strength }) => strength !== 'may' && !toldRightly.has(rule))
            .map(({ rule, message }) => `${rule}: ${message}`),
        ).toEqual([])
      }),
      propertyRuns(),
    )
  })
})
