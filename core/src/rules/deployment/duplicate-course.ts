import { z } from 'zod'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const duplicateCourse = defineRule({
  id: 'duplicate-course',
  group: 'deployment',
  title: 'A class section has one teaching course',
  why: 'Students of the class section see two courses and hand their work in at the wrong one.',
  untold: 'Two courses of one class section of which one is set aside, merged or cancelled.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 10,
  messages: { twice: 'Class section {section} also has the teaching course “{other}”.' },
  *check(context): Generator<Verdict> {
    const { history } = context
    if (!history) yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (history.sameClassSection.length === 0)
      yield { subject: aboutCourse, outcome: 'passed' }
    else
      for (const { name, classSection } of history.sameClassSection)
        yield {
          subject: aboutCourse,
          discriminator: `${classSection}/${name}`,
          outcome: 'failed',
          message: 'twice',
          values: { section: classSection, other: name },
          evidence: [{ kind: 'words', text: name }],
          expected: 'one teaching course; the other merged, set aside or cancelled',
          together: 'twice',
        }
  },
})
