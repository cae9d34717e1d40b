import { z } from 'zod'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

const differences = (wanted: readonly string[], seen: readonly string[]): string[] => [
  ...wanted
    .filter((person) => !seen.includes(person))
    .map((person) => `${person} is not on the platform`),
  ...seen
    .filter((person) => !wanted.includes(person))
    .map((person) => `${person} is not in the roster`),
]

export const rosterMismatch = defineRule({
  id: 'roster-mismatch',
  group: 'deployment',
  title: 'Class sections and instructors are those of the roster',
  why: 'Students of a class section that is not enrolled see no course; an instructor who left still sees one.',
  untold: 'A platform that tells neither class sections nor instructors.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'administrator',
  effortMinutes: 5,
  messages: {
    sections: 'Class sections differ from the roster: {seen}.',
    instructors: 'Instructors differ from the roster: {seen}.',
  },
  *check(context): Generator<Verdict> {
    const {
      course,
      expected: { facts },
    } = context
    // Some platforms count those who help among those who teach.
    const assistants = new Set(facts.assistants.map(({ email }) => email.toLowerCase()))
    const compare = [
      { discriminator: 'sections', wanted: facts.classSections, seen: course.classSections },
      {
        discriminator: 'instructors',
        wanted: facts.instructors.map((instructor) => instructor.email.toLowerCase()),
        seen: course.instructors
          ?.map((instructor) => instructor.toLowerCase())
          .filter((instructor) => !assistants.has(instructor)),
      },
    ] as const
    for (const { discriminator, wanted, seen } of compare) {
      const told = { subject: aboutCourse, discriminator } as const
      if (seen === undefined) yield { ...told, outcome: 'inapplicable' }
      else {
        const found = differences(wanted, seen)
        if (found.length === 0) yield { ...told, outcome: 'passed' }
        else
          yield {
            ...told,
            outcome: 'failed',
            message: discriminator,
            values: { seen: found.join(', ') },
            evidence: found.map((text) => ({ kind: 'value', text }) as const),
            expected: wanted.join(', '),
            together: discriminator,
          }
      }
    }
  },
})
