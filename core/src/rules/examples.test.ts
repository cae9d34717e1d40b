import { describe, expect, it } from 'vitest'
import { expectationFor } from '../check/index.ts'
import { analysePage } from '../page/index.ts'
import { pairCourse } from '../pair/index.ts'
import { CheckContext } from './context.ts'
import { exampleCourse } from './example/exampleCourse.ts'
import { gradedTemplate } from './example/gradedTemplate.ts'
import { ruleExamples } from './example/ruleExamples.testing.ts'
import { rules } from './registry.ts'
import { fillMessage } from './message.ts'
import type { AnyRule, RuleExample } from './rule.ts'

const verdictsOf = (rule: AnyRule, example: RuleExample) => {
  const shown = exampleCourse(gradedTemplate())
  example.change(shown)
  const worked = expectationFor(shown)
  if (!worked.ok) throw new Error(JSON.stringify(worked.problems))
  const pageOf = (item: { html: string | null }) =>
    item.html === null ? null : analysePage(item.html)
  const pairing = pairCourse(worked.value.expected, shown.course, pageOf)
  const context = new CheckContext({
    ...worked.value,
    course: shown.course,
    pairing,
    asOf: example.asOf ?? '2026-09-16',
    pageOf,
    history: shown.history,
  })
  return {
    verdicts: [
      ...rule.run(
        context,
        shown.template.policies.find((policy) => policy.rule === rule.id)?.parameters,
      ),
    ],
    context,
  }
}

const examples = await ruleExamples()

it('every file of examples is of a rule', () => {
  expect([...examples.keys()].sort()).toEqual(rules.map((rule) => rule.id).sort())
})

describe.each(rules.map((rule) => [rule.id, rule] as const))('%s', (id, rule) => {
  const { passes, fails } = examples.get(id) ?? { passes: [], fails: [] }
  it('has at least two examples that pass and two that fail', () => {
    expect(passes.length).toBeGreaterThanOrEqual(2)
    expect(fails.length).toBeGreaterThanOrEqual(2)
  })
  it.each(passes.map((example) => [example.title, example] as const))(
    'passes: %s',
    (_, example) => {
      const { verdicts } = verdictsOf(rule, example)
      expect(
        verdicts.filter(
          (verdict) => verdict.outcome === 'failed' || verdict.outcome === 'cannot-tell',
        ),
      ).toEqual([])
    },
  )
  it.each(fails.map((example) => [example.title, example] as const))('fails: %s', (_, example) => {
    const { verdicts, context } = verdictsOf(rule, example)
    const failed = verdicts.filter((verdict) => verdict.outcome === 'failed')
    expect(
      failed.map((verdict) => verdict.evidence[0]?.text),
      rule.id,
    ).toContain(example.evidence)
    for (const verdict of failed) {
      expect(fillMessage(rule.messages[verdict.message] ?? '', verdict.values)).not.toBe('')
      rule.mend?.(verdict, context)
    }
  })
})
