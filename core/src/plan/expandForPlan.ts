import { instructionalWeeks } from '../calendar/index.ts'
import { isShell, withRecordedIdentity, type Course, type Facts } from '../course/index.ts'
import { type Problem, type Result } from '../document/index.ts'
import { expandCourse, knownRepetitions, type ExpectedCourse } from '../expand/index.ts'
import { readGroupings } from '../pair/index.ts'
import { everyPart, isModule, type Template } from '../template/index.ts'
import { identityOf, type Base } from './base.ts'

/**
 * The expansion a plan is made for: with the ids of repetitions that earlier deployments minted, and, in a course that is
 * taken over as it stands or was taken over so, with the units it made of its weeks.
 */
export const expandForPlan = ({
  template,
  facts,
  course,
  base,
}: {
  template: Template
  facts: Facts
  course: Course
  base: Base
}): Result<ExpectedCourse, Problem[]> => {
  // Repetitions are carried over from the base as well: a removed module keeps its id, so that it stays removed.
  const recorded = base.parts.flatMap((entry) =>
    entry.repetition !== null && entry.number !== null
      ? [{ part: entry.part, number: entry.number, id: entry.repetition }]
      : [],
  )
  const repetitions = [
    ...knownRepetitions(template, withRecordedIdentity(course, identityOf(base))),
    ...recorded,
  ]
  const unitFormats = new Map(
    everyPart(template).flatMap((part) =>
      isModule(part) && part.groupings ? [[part.key, part.groupings.name] as const] : [],
    ),
  )
  const takenOver =
    base.parts.length === 0
      ? !isShell(course)
      : base.parts.some(
          (entry) => entry.format !== null && unitFormats.get(entry.part) === entry.format,
        )
  if (!takenOver || unitFormats.size === 0)
    return expandCourse({ template, facts, mintFrom: course.id, repetitions })
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm: facts.nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const groupings = Object.fromEntries(
    Object.entries(readGroupings(template, facts, weeks, course)).flatMap(([key, reading]) =>
      reading.state === 'grouped' ? [[key, reading.units]] : [],
    ),
  )
  return expandCourse({ template, facts, mintFrom: course.id, repetitions, groupings })
}
