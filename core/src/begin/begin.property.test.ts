import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import { proofread } from '../proofread/index.ts'
import { Template } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { holdings, templateFromSentences, usualSentences, type Sentences } from './index.ts'

describe('a template from a page of sentences', () => {
  const answers: fc.Arbitrary<Partial<Sentences>> = fc.record({
    modalities: fc.constantFrom<Sentences['modalities']>(['online'], ['on-campus', 'hybrid']),
    lengths: fc.constantFrom([16], [8, 7], [15, 16]),
    per: fc.constantFrom('week', 'unit', 'day'),
    units: fc.constantFrom(null, 2, 4),
    named: fc.constantFrom('number', 'number-dates', 'number-topic', 'number-dates-topic'),
    opens: fc.constantFrom('week-by-week', 'all-at-once'),
    pause: fc.boolean(),
    begins: fc.boolean(),
    ends: fc.boolean(),
    grading: fc.constantFrom('weights', 'points', 'none'),
    holds: fc
      .subarray([...holdings])
      .map((chosen) =>
        chosen.map((what, i) => ({
          what,
          strength: 'must' as const,
          often: (['each', 'every-other', 'end-of-unit'] as const)[i % 3] ?? 'each',
          points: 10,
        })),
      ),
  })
  it('can be released as it stands, whatever was answered', () => {
    fc.assert(
      fc.property(answers, (some) => {
        const needsUnits = some.per === 'unit' && some.units === null
        const made = templateFromSentences({
          ...usualSentences(),
          ...some,
          ...(needsUnits ? { units: 4 } : {}),
        })
        if (!made.ok) throw new Error(JSON.stringify(made.problems))
        expect(readDocument(Template, made.value).ok).toBe(true)
        expect(proofread(made.value).filter(({ severity }) => severity === 'error')).toEqual([])
      }),
      propertyRuns(),
    )
  })
})
