import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const moduleMissing = defineRule({
  id: 'module-missing',
  group: 'structure',
  title: 'Every module is there',
  why: 'Students look for a week or a unit where every other course has it, and do not find it.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 10,
  messages: { missing: '“{name}” is missing. {strength}' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind !== 'module') continue
      const subject = aboutPart(part)
      if (context.moduleFor(part)) yield { subject, outcome: 'passed' }
      else if (part.strength === 'may' || part.inBreak || part.definition.may.remove || context.groupings[part.key]?.state === 'unreadable')
        yield { subject, outcome: 'inapplicable' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'missing',
          values: { name: part.name, strength: part.strength === 'must' ? 'Every course has it.' : 'Courses should have it.' },
          evidence: [{ kind: 'count', text: `no module for ${part.name}` }],
          expected: `a module “${part.name}”`,
        }
    }
  },
  examples: {
    passes: [
      { title: 'all modules stand as deployed', change: () => {} },
      { title: 'a week renamed beyond recognition is still the week that deployment made', change: ({ module }) => void (module('week', 3).name = 'Sounding the harbour') },
      { title: 'a break week without its module', change: ({ course, module }) => void course.modules.splice(course.modules.indexOf(module('week', 5)), 1) },
    ],
    fails: [
      { title: 'week 3 was deleted', change: ({ course, module }) => void course.modules.splice(course.modules.indexOf(module('week', 3)), 1), evidence: 'no module for Week 3 · Sep 14 – Sep 20 · Compass' },
      { title: 'the opening module was deleted', change: ({ course, module }) => void course.modules.splice(course.modules.indexOf(module('start-here')), 1), evidence: 'no module for Start here' },
    ],
  },
})
