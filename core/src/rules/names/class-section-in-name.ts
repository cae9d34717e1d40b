import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { classSectionsNamed, parseFormat } from '../../naming/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

const asksForClassSection = (format: string): boolean => {
  const parsed = parseFormat(format)
  return (
    parsed.ok &&
    parsed.value.nodes.some((node) =>
      (node.node === 'optional' ? node.nodes : [node]).some(
        (node) => node.node === 'field' && node.field === 'classSection',
      ),
    )
  )
}

export const classSectionInName = defineRule({
  id: 'class-section-in-name',
  group: 'names',
  title: 'A course of several class sections is not named for one',
  why: 'After class sections are merged, students of the others think they are in the wrong course.',
  untold: 'Formats that ask for the class section, and courses that hold one only.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    section:
      'The course holds class sections {sections}, and its {what} “{name}” speaks of {seen} alone.',
  },
  *check(context): Generator<Verdict> {
    const { facts, template, name, label } = context.expected
    const told = [
      { what: 'name', text: context.course.name, wanted: name, format: template.naming.courseName },
      {
        what: 'label',
        text: context.course.label,
        wanted: label,
        format: template.naming.courseLabel,
      },
    ]
    for (const { what, text, wanted, format } of told) {
      const subject = { subject: aboutCourse, discriminator: what }
      const seen =
        facts.classSections.length > 1 && !asksForClassSection(format)
          ? classSectionsNamed(text, facts.code, facts.classSections)[0]
          : undefined
      if (facts.classSections.length < 2) yield { ...subject, outcome: 'inapplicable' }
      else if (seen === undefined) yield { ...subject, outcome: 'passed' }
      else
        yield {
          ...subject,
          outcome: 'failed',
          message: 'section',
          values: { sections: facts.classSections.join(', '), what, name: text, seen: `“${seen}”` },
          evidence: [{ kind: 'words', text: seen }],
          expected: wanted,
        }
    }
  },
  mend: (verdict, context): Change[] => [
    verdict.discriminator === 'label'
      ? { change: 'set-course', label: context.expected.label }
      : { change: 'set-course', name: context.expected.name },
  ],
})
