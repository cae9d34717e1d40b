import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const itemMissing = defineRule({
  id: 'item-missing',
  group: 'structure',
  title: 'Every item is in its module',
  why: 'A page or activity that every course has is not there, so students miss what they are asked to do.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { missing: '“{name}” is missing from {module}.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind === 'module') continue
      const subject = aboutPart(part)
      const module = context.partAt(part.parent)
      if (context.itemFor(part)) yield { subject, outcome: 'passed' }
      else if (part.strength === 'may' || part.inBreak || part.definition.may.remove) yield { subject, outcome: 'inapplicable' }
      else if (module && !context.moduleFor(module) && !context.pairing.merged.some((one) => one.expected.includes(module.instance))) yield { subject, outcome: 'absent' }
      else if (standsIn(context, part)) yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'missing',
          values: { name: part.name, module: module ? `“${(context.moduleFor(module) ?? module).name}”` : 'the course' },
          evidence: [{ kind: 'count', text: `nothing for ${part.name}` }],
          expected: `a ${part.kind} “${part.name}”`,
          itemId: module ? context.moduleFor(module)?.id : undefined,
        }
    }
  },
  examples: {
    passes: [
      { title: 'all items stand as deployed', change: () => {} },
      {
        title: 'a discussion that may go was removed',
        change: ({ module, item }) => void module('week', 2).items.splice(module('week', 2).items.indexOf(item('quiz', 2)), 1),
      },
      {
        title: 'an assignment does the discussion’s job, which the template accepts',
        change: ({ item }) => {
          const discussion = item('discussion', 2)
          delete discussion.recordedAs
          discussion.kind = 'assignment'
        },
      },
    ],
    fails: [
      { title: 'the checklist of week 3 was deleted', change: ({ module }) => void module('week', 3).items.pop(), evidence: 'nothing for Week 3 checklist' },
      { title: 'the welcome page was deleted', change: ({ module, item }) => void module('start-here').items.splice(module('start-here').items.indexOf(item('welcome')), 1), evidence: 'nothing for Welcome to NAV 110' },
    ],
  },
})

/** Whether something the template accepts in the part's place was found in its module: another paired part, or an unpaired item of an accepted kind. */
const standsIn = (context: Parameters<Parameters<typeof defineRule>[0]['check']>[0], part: (typeof context.parts)[number]): boolean => {
  const definition = part.definition
  if (definition.kind === 'module' || definition.acceptsInstead.length === 0) return false
  const module = context.partAt(part.parent)
  const found = module ? context.moduleFor(module) : null
  return (found?.items ?? []).some((item) => {
    const as = context.partOf(item.id)
    return as ? definition.acceptsInstead.includes(as.key) : definition.acceptsInstead.includes(item.kind)
  })
}
