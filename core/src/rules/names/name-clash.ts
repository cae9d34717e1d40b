import { z } from 'zod'
import { nameClashes } from '../../naming/index.ts'
import { twinsIn } from '../structure/twins.ts'
import { aboutCourse, aboutFound, defineRule, type Verdict } from '../rule.ts'

export const nameClash = defineRule({
  id: 'name-clash',
  group: 'names',
  title: 'No name stands for two things',
  why: 'Two courses of one name cannot be told apart in a list, and “Quiz 1” in a calendar says nothing about whose it is.',
  untold:
    'Names that the template gives to all courses alike, items without a date, and a copy that is told as standing in another’s place.',
  strength: 'should',
  parameters: z.strictObject({
    acrossCourses: z
      .boolean()
      .default(true)
      .describe('Whether calendar names are compared with those of other courses of the term'),
  }),
  mender: 'designer',
  effortMinutes: 2,
  messages: {
    course: 'The {what} “{name}” is also that of {others}.',
    calendar:
      '“{name}” also stands in students’ calendars for {others}, so nobody sees whose it is.',
    twice: '“{name}” stands {count} times in students’ calendars from this course.',
  },
  *check(context, { acrossCourses }): Generator<Verdict> {
    for (const [kind, what] of [
      ['course-name', 'name'],
      ['label', 'label'],
    ] as const) {
      const clash = context.clashes.find((clash) => clash.kind === kind)
      const told = { subject: aboutCourse, discriminator: what } as const
      // Two courses may share a label: eight class sections of one course do. And that a name is shared which the format
      // gives is the template's to change, once for all courses, unless one person has both before them.
      if (!clash) yield { ...told, outcome: 'passed' }
      else if (
        kind === 'label' ||
        (clash.name === context.expected.name && !clash.sharesInstructor)
      )
        yield { ...told, outcome: 'inapplicable' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'course',
          values: { what, name: clash.name, others: listed(clash.others) },
          evidence: [{ kind: 'words', text: clash.name }],
          expected: 'a name of its own',
        }
    }
    const elsewhere = new Map(
      acrossCourses
        ? context.clashes.flatMap((clash) =>
            clash.kind === 'calendar-name' ? [[clash.name, clash] as const] : [],
          )
        : [],
    )
    // A copy in the place of another repetition is told as such, and so is its name.
    const twins = new Set(twinsIn(context).map(({ found }) => found.item.id))
    const dated = context.placedItems.filter(
      ({ item }) => item.dueAt !== null && !twins.has(item.id),
    )
    const twice = new Map(
      nameClashes(dated.map(({ item }) => ({ name: item.name, who: item.id }))).flatMap((clash) =>
        clash.who.slice(1).map((id) => [id, clash] as const),
      ),
    )
    for (const { item } of dated) {
      const part = context.partOf(item.id)
      const subject = aboutFound(context, item)
      const failed = {
        subject,
        outcome: 'failed',
        evidence: [{ kind: 'words', text: item.name }],
        itemId: item.id,
      } as const
      const same = twice.get(item.id)
      const others = elsewhere.get(item.name)
      if (same)
        yield {
          ...failed,
          message: 'twice',
          values: { name: item.name, count: String(same.who.length) },
          expected: 'a name of its own',
        }
      else if (others && part?.name === item.name) yield { subject, outcome: 'inapplicable' }
      else if (others)
        yield {
          ...failed,
          message: 'calendar',
          values: { name: item.name, others: listed(others.others) },
          expected: 'a name that tells the course',
        }
      else if (part) yield { subject, outcome: 'passed' }
    }
  },
})

const listed = (others: readonly string[]): string =>
  others.length > 3
    ? `${others.slice(0, 3).join(', ')} and ${others.length - 3} more`
    : others.join(', ')
