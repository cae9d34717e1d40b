import { describe, expect, it } from 'vitest'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import {
  aboutCourse,
  aboutPart,
  ruleById,
  type CheckContext,
  type Subject,
} from '../rules/index.ts'
import type { Strength } from '../template/index.ts'
import { exampleContext } from './exampleContext.testing.ts'
import type { OpenRequirement } from './openRequirement.ts'
import { silence } from './silence.ts'
import { applySilence } from './telling.ts'

const context = exampleContext(exampleCourse())
const about = (key: string, week: number, of = context): Subject => {
  const part = of.parts.find((part) => part.key === key && part.values.week === week)
  if (!part) throw new Error(`the example has ${key} in week ${week}`)
  return aboutPart(part)
}

const open = (
  rule: string,
  subject: Subject,
  { strength = 'must', message = 'seen' }: { strength?: Strength; message?: string } = {},
): OpenRequirement => {
  const found = ruleById(rule)
  if (!found) throw new Error(`there is no rule ${rule}`)
  return {
    rule: found,
    said: 'failed',
    subject,
    discriminator: undefined,
    verdict: { subject, outcome: 'failed', message, values: {}, evidence: [], expected: '' },
    outcome: {
      rule,
      fingerprint: rule,
      strength,
      outcome: 'failed',
      place: { path: [], part: null, instance: null, week: null, foundId: null },
      reason: null,
      toldBy: null,
    },
  }
}
const toldBy = (
  teller: OpenRequirement,
  silent: OpenRequirement,
  of: CheckContext = context,
): string | null => {
  for (const told of [
    [silent, teller],
    [teller, silent],
  ]) {
    silent.outcome.toldBy = null
    applySilence(told, of)
    expect(teller.outcome.toldBy).toBeNull()
  }
  return silent.outcome.toldBy
}

describe('what another finding tells already', () => {
  /** What the teller speaks of where the silent one is about the quiz of week 3, and what it might speak of beside that. */
  const speaksOf: Record<(typeof silence)[number]['scope'], { of: Subject; other: Subject }> = {
    same: { of: about('quiz', 3), other: about('quiz', 4) },
    module: { of: about('week', 3), other: about('week', 4) },
    course: { of: aboutCourse, other: about('quiz', 3) },
  }
  it.each(silence)('is not told twice: $teller tells $silent ($scope)', (entry) => {
    const { of, other } = speaksOf[entry.scope]
    const silent = () => open(entry.silent, about('quiz', 3))
    expect(toldBy(open(entry.teller, of), silent())).toBe(entry.teller)
    expect(toldBy(open(entry.teller, other), silent())).toBeNull()
    expect(toldBy(open('alt-missing', of), silent())).toBeNull()
  })
  it.each<[Strength, Strength, told: boolean]>([
    ['must', 'must', true],
    ['must', 'should', true],
    ['should', 'should', true],
    ['should', 'must', false],
    ['may', 'must', false],
    ['may', 'should', false],
    ['may', 'may', true],
  ])('is told by a %s of a %s: %j', (teller, silent, told) => {
    expect(
      toldBy(
        open('wrong-kind', about('quiz', 3), { strength: teller }),
        open('due-missing', about('quiz', 3), { strength: silent }),
      ),
    ).toBe(told ? 'wrong-kind' : null)
  })
  it('is told by one of several that ask for enough', () => {
    const weak = open('wrong-kind', about('quiz', 3), { strength: 'should' })
    const strict = open('wrong-kind', about('quiz', 3))
    strict.outcome.fingerprint = 'strict'
    const silent = open('due-missing', about('quiz', 3))
    for (const told of [
      [weak, strict, silent],
      [strict, weak, silent],
    ]) {
      applySilence(told, context)
      expect(silent.outcome.toldBy).toBe('strict')
    }
  })
  it('is told of a part where it stands, in another week than its own', () => {
    const moved = exampleCourse()
    const quiz = moved.item('quiz', 3)
    moved.module('week', 3).children = moved
      .module('week', 3)
      .children.filter((item) => item !== quiz)
    moved.module('week', 5).children.push(quiz)
    const elsewhere = exampleContext(moved)
    const hidden = (week: number) =>
      toldBy(
        open('must-part-hidden', about('week', week, elsewhere)),
        open('published-in-hidden-module', about('quiz', 3, elsewhere)),
        elsewhere,
      )
    expect([3, 4, 5].map(hidden)).toEqual(['must-part-hidden', null, 'must-part-hidden'])
  })
  it('is not what stands in another week’s module, where the week is missing', () => {
    const missing = (message: string) =>
      toldBy(
        open('module-missing', about('week', 3), { message }),
        open('item-missing', about('quiz', 3)),
      )
    expect(['missing', 'merged'].map(missing)).toEqual(['module-missing', null])
  })
  it('is told in the end: no finding waits for one that waits for it', () => {
    const tellersOf = (rule: string): string[] =>
      silence.flatMap(({ teller, silent }) => (silent === rule ? [teller] : []))
    for (const { silent } of silence) {
      const above = new Set<string>()
      const climb = (rule: string): void => {
        for (const teller of tellersOf(rule))
          if (!above.has(teller)) {
            above.add(teller)
            climb(teller)
          }
      }
      climb(silent)
      expect([silent, above.has(silent)]).toEqual([silent, false])
    }
  })
})
