import type { RosterReport } from '@wickerframe/contract'
import { peopleAsFacts, type CoursePerson, type Person } from '@wickerframe/core'
import type { RosterCourse } from '@wickerframe/interchange'

/** Columns of a course that its roster row speaks of. */
export const rosterFields = [
  'code',
  'title',
  'term_code',
  'session_code',
  'department',
  'modality',
  'weeks',
  'status',
  'class_section_kind',
] as const
export type RosterField = (typeof rosterFields)[number]
export type RosterValues = Record<RosterField, string | number | null>

/** A course as it is stored, as far as a roster file speaks of it. */
export interface KnownCourse {
  id: number
  values: RosterValues
  /** In the order of their names. */
  classSections: string[]
  people: CoursePerson[]
  /** Fields that somebody decided on here, with who did. */
  decided: ReadonlyMap<string, string>
}

export const rosterValues = (course: RosterCourse): RosterValues => ({
  code: course.code,
  title: course.title,
  term_code: course.term,
  session_code: course.session,
  department: course.department,
  modality: course.modality,
  weeks: course.weeks,
  status: course.status,
  class_section_kind: course.classSectionKind,
})

/** What a roster file changes in a course that is known: nothing where somebody decided otherwise here, which is told. */
export interface RosterDifference {
  fields: RosterField[]
  takesSections: boolean
  /** Who is in the course from then on; null: whoever is in it. */
  people: CoursePerson[] | null
  changes: RosterReport['changes']
  kept: RosterReport['kept']
}

export const rosterDifference = (course: RosterCourse, known: KnownCourse): RosterDifference => {
  const wanted = rosterValues(course)
  const name = `${course.code} ${course.title}, ${course.classSections.join(', ')}`
  const changes: RosterReport['changes'] = []
  const kept: RosterReport['kept'] = []
  /** Whether the file's value is taken where it differs. */
  const takes = (decidedAs: string, field: string, from: string, to: string): boolean => {
    if (from === to) return false
    const by = known.decided.get(decidedAs)
    if (by === undefined) changes.push({ line: course.line, course: name, field, from, to })
    else kept.push({ line: course.line, course: name, field, here: from, file: to, by })
    return by === undefined
  }
  const fields = rosterFields.filter((field) =>
    takes(
      field,
      field.replaceAll('_', ' '),
      String(known.values[field] ?? ''),
      String(wanted[field] ?? ''),
    ),
  )
  const takesSections = takes(
    'class sections',
    'class sections',
    known.classSections.join(', '),
    course.classSections.toSorted().join(', '),
  )
  const here = peopleAsFacts(known.people)
  const takesInstructors = takes(
    'instructors',
    'instructors',
    listed(here.instructors),
    listed(course.instructors),
  )
  const takesDuties =
    course.duties !== null &&
    takes(
      'duties',
      'owner and assistants',
      dutiesInWords({ owner: here.owner ?? null, assistants: here.assistants }),
      dutiesInWords(course.duties),
    )
  return {
    fields,
    takesSections,
    people:
      takesInstructors || takesDuties
        ? peopleWith(
            takesInstructors ? course.instructors : here.instructors,
            takesDuties && course.duties
              ? course.duties
              : { owner: here.owner ?? null, assistants: here.assistants },
          )
        : null,
    changes,
    kept,
  }
}

/** People of a course that comes in new. */
export const peopleOfRoster = ({ instructors, duties }: RosterCourse): CoursePerson[] =>
  peopleWith(instructors, duties ?? { owner: null, assistants: [] })

/** Who teaches and who helps, as one list: nobody twice, and no owner who does not teach. */
const peopleWith = (
  instructors: readonly Person[],
  { owner, assistants }: NonNullable<RosterCourse['duties']>,
): CoursePerson[] => [
  ...instructors.map((person) => ({
    ...person,
    duty: person.email === owner ? ('owner' as const) : ('instructor' as const),
  })),
  ...assistants
    .filter(({ email }) => !instructors.some((person) => person.email === email))
    .map((person) => ({ ...person, duty: 'assistant' as const })),
]

const listed = (people: readonly Person[]): string =>
  people.map((person) => `${person.name} <${person.email}>`).join(', ')
const dutiesInWords = ({ owner, assistants }: NonNullable<RosterCourse['duties']>): string =>
  [owner === null ? '' : `owner ${owner}`, ...assistants.map(({ email }) => `assistant ${email}`)]
    .filter((words) => words !== '')
    .join(', ')
