import { z } from 'zod'
import { type CourseModule, modulesIn } from '../../course/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const nestingDepth = defineRule({
  id: 'nesting-depth',
  group: 'structure',
  title: 'Modules are not nested too deep',
  why: 'On a telephone students open four levels to find one reading, and some never do.',
  untold: 'Modules up to the limit, whoever put them there.',
  strength: 'should',
  parameters: z.strictObject({
    most: z.number().int().min(1).max(6).default(2).describe('Levels of modules'),
  }),
  mender: 'instructor',
  effortMinutes: 10,
  messages: { deep: '“{module}” stands on level {seen}; at most {most} are wanted.' },
  *check(context, { most }): Generator<Verdict> {
    const levels = new Map<string, number>()
    const visit = (modules: readonly CourseModule[], level: number) => {
      for (const module of modules) {
        levels.set(module.id, level)
        visit(modulesIn(module), level + 1)
      }
    }
    visit(context.course.modules, 1)
    for (const module of context.modules) {
      const level = levels.get(module.id) ?? 1
      const subject = aboutFound(context, module)
      if (level <= most) {
        if (context.partOf(module.id)) yield { subject, outcome: 'passed' }
      } else
        yield {
          subject,
          outcome: 'failed',
          message: 'deep',
          values: { module: module.name, seen: String(level), most: String(most) },
          evidence: [{ kind: 'value', text: `level ${level}` }],
          expected: `at most ${most} levels`,
          itemId: module.id,
          together: 'deep-modules',
        }
    }
  },
})
