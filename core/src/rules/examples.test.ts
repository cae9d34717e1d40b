import { describe, expect, it } from 'vitest'
import { exampleContext } from '../check/exampleContext.testing.ts'
import { applyChanges, documentHand } from '../course/index.ts'
import { rememberOf } from '../remember/index.ts'
import { exampleCourse } from './example/exampleCourse.ts'
import { gradedTemplate } from './example/gradedTemplate.ts'
import { ruleExamples } from './example/ruleExamples.testing.ts'
import { rules } from './registry.ts'
import { fillMessage } from './message.ts'
import type { AnyRule, ExampleCourse, RuleExample } from './rule.ts'

/** What a rule says of a course as it stands. */
const looked = (rule: AnyRule, shown: ExampleCourse, asOf: string | undefined) => {
  const context = exampleContext(shown, asOf)
  const parameters = shown.template.policies.find((policy) => policy.rule === rule.id)?.parameters
  return { verdicts: [...rule.run(context, parameters)], context }
}
const shownIn = (example: RuleExample): ExampleCourse => {
  const shown = exampleCourse(gradedTemplate())
  example.change(shown)
  return shown
}
type Verdicts = ReturnType<typeof looked>['verdicts']
const ofOutcome = (verdicts: Verdicts, outcome: string) =>
  verdicts.filter((verdict) => verdict.outcome === outcome)
/** Which requirement a verdict is of. */
const requirement = ({ subject, discriminator }: Verdicts[number]): string =>
  `${subject.about === 'part' ? subject.part.instance : subject.about === 'found' ? subject.id : ''} ${discriminator ?? ''}`

const examples = await ruleExamples()

it('every file of examples is of a rule', () => {
  expect([...examples.keys()].sort()).toEqual(rules.map((rule) => rule.id).sort())
})

describe.each(rules.map((rule) => [rule.id, rule] as const))('%s', (id, rule) => {
  const { passes, fails } = examples.get(id) ?? { passes: [], fails: [] }
  const said = rememberOf(
    (example: RuleExample) => looked(rule, shownIn(example), example.asOf).verdicts,
  )
  it('has at least two examples that pass and two that fail', () => {
    expect(passes.length).toBeGreaterThanOrEqual(2)
    expect(fails.length).toBeGreaterThanOrEqual(2)
  })
  it.each(passes.map((example) => [example.title, example] as const))(
    'passes: %s',
    (_, example) => {
      const verdicts = said(example)
      expect([...ofOutcome(verdicts, 'failed'), ...ofOutcome(verdicts, 'cannot-tell')]).toEqual([])
    },
  )
  it('some example that passes is said to have passed, not only to be none of its affair', () => {
    const passed = passes.flatMap((example) => ofOutcome(said(example), 'passed'))
    expect(passed.length).toBeGreaterThan(0)
  })
  it.each(fails.map((example) => [example.title, example] as const))(
    'fails: %s; what it proposes cures it',
    (_, example) => {
      const shown = shownIn(example)
      const { verdicts, context } = looked(rule, shown, example.asOf)
      const failed = verdicts.filter((verdict) => verdict.outcome === 'failed')
      expect(
        failed.map((verdict) => verdict.evidence[0]?.text),
        rule.id,
      ).toContain(example.evidence)
      for (const verdict of failed) {
        expect(fillMessage(rule.messages[verdict.message] ?? '', verdict.values)).not.toBe('')
        const mend = rule.mend?.(verdict, context) ?? []
        if (mend.length === 0) continue
        const mended = applyChanges(shown.course, mend, documentHand(shown.course))
        if (!mended.ok) throw new Error(`${rule.id}: ${mended.problems.message}`)
        const after = looked(rule, { ...shown, course: mended.value.course }, example.asOf).verdicts
        expect(ofOutcome(after, 'failed').map(requirement)).not.toContain(requirement(verdict))
      }
    },
  )
})
