import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { type CourseModule, modulesIn } from '../../course/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { rangedModules } from './namedRanges.ts'

export const rangeNesting = defineRule({
  id: 'range-nesting',
  group: 'dates',
  title: 'A module lies within the dates of the one it stands in',
  why: 'A week of October inside a unit that ends in September makes students distrust both.',
  untold: 'Modules without dates in their names.',
  strength: 'should',
  parameters: z.strictObject({ toleranceDays: z.number().int().min(0).max(6).default(2) }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    outside: '“{inner}” says {seen}, which lies outside {range}, the dates of “{outer}” around it.',
  },
  *check(context, { toleranceDays }): Generator<Verdict> {
    const visit = function* (modules: readonly CourseModule[]): Generator<Verdict> {
      // Most courses have no module in another.
      for (const outer of rangedModules(
        context,
        modules.filter((module) => modulesIn(module).length > 0),
      ))
        for (const inner of rangedModules(context, modulesIn(outer.module))) {
          const { subject } = inner
          if (
            addDays(inner.range.first, toleranceDays) >= outer.range.first &&
            addDays(inner.range.last, -toleranceDays) <= outer.range.last
          )
            yield { subject, outcome: 'passed' }
          else
            yield {
              subject,
              outcome: 'failed',
              message: 'outside',
              values: {
                inner: inner.module.name,
                seen: inner.range.text,
                range: outer.range.text,
                outer: outer.module.name,
              },
              evidence: [{ kind: 'date', text: inner.range.text }],
              expected: `dates within ${outer.range.first} to ${outer.range.last}`,
              itemId: inner.module.id,
            }
        }
      for (const module of modules) yield* visit(modulesIn(module))
    }
    yield* visit(context.course.modules)
  },
})
