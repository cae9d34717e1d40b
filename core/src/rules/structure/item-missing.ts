import { z } from 'zod'
import { type Change, itemsIn } from '../../course/index.ts'
import { aboutCourse, aboutPart, defineRule, type Verdict } from '../rule.ts'
import { foldedName } from '../../naming/index.ts'
import { relinked } from '../links/relinked.ts'
import { broughtBack } from './broughtBack.ts'

export const itemMissing = defineRule({
  id: 'item-missing',
  group: 'structure',
  title: 'Every item is in its module',
  why: 'A page or activity that every course has is not there, so students miss what they are asked to do.',
  untold:
    'What may be left out, weeks marked as “not this week” within their share, and parts of a module that is missing as a whole. Of a week that stands in another’s module, what is not there either is told.',
  strength: 'must',
  parameters: z.strictObject({
    quota: z
      .number()
      .min(0)
      .max(1)
      .default(0.25)
      .describe('Share of the weeks in which parts that may go can be left out as “not this week”'),
  }),
  mender: 'instructor',
  effortMinutes: 5,
  messages: {
    missing: '“{name}” is missing from {module}.',
    unsaid: '“{name}” is missing from {module}. It may go: say “not this week” if that is meant.',
    quota:
      '{seen} of {weeks} weeks are marked “not this week”; up to {most} are allowed without asking.',
  },
  *check(context, { quota }): Generator<Verdict> {
    const weeksLeftOut = new Set<number>()
    for (const part of context.parts) {
      if (part.kind === 'module') continue
      const subject = aboutPart(part)
      const module = context.partAt(part.parent)
      const mayGo = part.definition.may.remove === true
      if (context.itemFor(part)) yield { subject, outcome: 'passed' }
      else if (part.strength === 'may' || part.inBreak) yield { subject, outcome: 'inapplicable' }
      else if (
        module &&
        !context.moduleFor(module) &&
        !context.pairing.merged.some(({ expected }) => expected.includes(module.instance))
      )
        yield { subject, outcome: 'absent' }
      else if (standsIn(context, part)) yield { subject, outcome: 'passed' }
      else if (mayGo && context.notThisWeek.has(part.instance)) {
        if (part.week) weeksLeftOut.add(part.week.number)
        yield { subject, outcome: 'passed' }
      } else
        yield {
          subject,
          outcome: 'failed',
          ...(mayGo ? { strength: 'should' } : {}),
          message: mayGo ? 'unsaid' : 'missing',
          values: {
            name: part.name,
            module: module ? `“${(context.moduleFor(module) ?? module).name}”` : 'the course',
          },
          evidence: [{ kind: 'count', text: `nothing for ${part.name}` }],
          expected: `a ${part.kind} “${part.name}”`,
          itemId: module ? context.moduleFor(module)?.id : undefined,
        }
    }
    const weeks = context.expected.weeks.filter((week) => week.breakName === null).length
    const most = Math.floor(weeks * quota)
    if (weeksLeftOut.size > most)
      yield {
        subject: aboutCourse,
        discriminator: 'not-this-week',
        strength: 'should',
        outcome: 'failed',
        message: 'quota',
        values: { seen: String(weeksLeftOut.size), weeks: String(weeks), most: String(most) },
        evidence: [{ kind: 'count', text: `weeks ${[...weeksLeftOut].join(', ')}` }],
        expected: `at most ${most} weeks`,
      }
  },
  mend(verdict, context): Change[] {
    const part = verdict.subject.about === 'part' ? verdict.subject.part : null
    const back = part ? broughtBack(part, context) : null
    if (!part || !back) return []
    // Links that led to it, as in the list of work, lead to it again.
    const name = foldedName(part.name)
    const again = context.placedItems.flatMap(
      ({ item }) =>
        relinked(context, item, (words) => (words === name ? `ref:${part.instance}` : null)) ?? [],
    )
    return [back, ...again]
  },
})

/** Whether something the template accepts in the part's place was found in its module: another paired part, or an unpaired item of an accepted kind. */
const standsIn = (
  context: Parameters<Parameters<typeof defineRule>[0]['check']>[0],
  part: (typeof context.parts)[number],
): boolean => {
  const definition = part.definition
  if (definition.kind === 'module' || definition.acceptsInstead.length === 0) return false
  const module = context.partAt(part.parent)
  const found = module ? context.moduleFor(module) : null
  return (found ? itemsIn(found) : []).some((item) => {
    const as = context.partOf(item.id)
    return as
      ? definition.acceptsInstead.includes(as.key)
      : definition.acceptsInstead.includes(item.kind)
  })
}
