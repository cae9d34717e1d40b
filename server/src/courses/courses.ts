import { currentCheckOf } from '../checks/currentCheck.ts'
import { ownerOf, peopleAsFacts, type PartsTaken, type Facts, type Term } from '@wickerframe/core'
import { CourseCalendar, type CourseState, type CourseSummary } from '@wickerframe/contract'
import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { z } from 'zod'
import { instantOfRow } from '../moment.ts'
import type { Person } from '../people/people.ts'
import { moduleOwnersByCourse, peopleByCourse } from './coursePeople.ts'
import { visibleTo } from './visible.ts'
import { listTerms } from '../terms/terms.ts'

interface CourseRow {
  id: number
  platform_id: string
  term_code: string
  session_code: string | null
  code: string
  title: string
  department: string
  modality: Facts['modality']
  weeks: number
  status: string
  class_section_kind: 'own' | 'shared'
  topics: string
  calendar: string | null
  answers: string | null
  reader_name: string | null
  room: string | null
  parts_taken: string | null
  strengths_version: number | null
  template_id: number | null
  version: number | null
  template_key: string | null
  template_title: string | null
  newest: number | null
  read_at: string | null
  is_shell: number | null
  deployed: number
  sections: string | null
  check_as_of: string | null
  check_counts: string | null
  check_readiness: NonNullable<CourseSummary['check']>['readiness'] | null
}

/** @param latest which check of a course is told with it */
const selectWith = (
  latest: string,
): string => `SELECT courses.id, courses.platform_id, courses.term_code, courses.session_code, courses.code,
    courses.title, courses.department, courses.modality, courses.weeks, courses.status,
    courses.class_section_kind, courses.topics, courses.calendar, courses.answers, courses.room,
    courses.parts_taken, courses.strengths_version, courses.template_id, courses.version,
    templates.template_key, templates.title AS template_title,
    (
      SELECT MAX(number)
      FROM template_versions
      WHERE template_versions.template_id = courses.template_id
    ) AS newest, snapshots.read_at, snapshots.is_shell,
    EXISTS (
      SELECT 1
      FROM deployments
      WHERE deployments.course_id = courses.id
        AND deployments.undone_by IS NULL
        AND deployments.mode <> 'undo'
    ) AS deployed,
    (
      SELECT GROUP_CONCAT(class_sections.name ORDER BY class_sections.name SEPARATOR '\\n')
      FROM class_sections
      WHERE class_sections.course_id = courses.id
    ) AS sections, latest.as_of AS check_as_of, latest.counts AS check_counts,
    latest.readiness AS check_readiness,
    (SELECT platform_feed.reader_name FROM platform_feed WHERE platform_feed.id = 1) AS reader_name
  FROM courses
  LEFT JOIN templates ON templates.id = courses.template_id
  LEFT JOIN snapshots ON snapshots.course_id = courses.id
  LEFT JOIN check_results AS latest ON ${latest}`
const select = selectWith(`latest.id = ${currentCheckOf('courses.id')}`)
const selectUnchecked = selectWith('FALSE')

const stateOf = (row: CourseRow): CourseState => {
  if (row.deployed) return 'deployed'
  if (row.template_id !== null) return 'checked-only'
  if (row.read_at === null) return 'not-read'
  return row.is_shell ? 'shell' : 'other-content'
}

export interface StoredCourse {
  summary: CourseSummary
  facts: Facts
  templateId: number | null
  version: number | null
  /** Parts of newer versions that were brought into it, in the order in which they were. */
  partsTaken: (PartsTaken & { templateId: number; version: number })[]
  /** A newer version whose strengths and parameters it is held to, or null. */
  strengthsVersion: number | null
}

const PartsTakenList = z.array(
  z.strictObject({
    templateId: z.number().int(),
    version: z.number().int(),
    only: z.array(z.string()).nullable(),
    except: z.array(z.string()),
  }),
)

const readRows = async (
  database: Database,
  rows: readonly CourseRow[],
): Promise<StoredCourse[]> => {
  if (rows.length === 0) return []
  const terms = new Map((await listTerms(database)).map((term) => [term.code, term]))
  const ids = rows.map((row) => row.id)
  const people = await peopleByCourse(database, ids)
  const moduleOwners = await moduleOwnersByCourse(database, ids)
  return rows.map((row) => {
    const term = terms.get(row.term_code)
    if (!term) throw new Error(`course ${row.id} is in term ${row.term_code}, which is not there`)
    const ofCourse = {
      ...peopleAsFacts(people.get(row.id) ?? []),
      moduleOwners: moduleOwners.get(row.id) ?? {},
    }
    const classSections = row.sections === null ? [] : row.sections.split('\n')
    const summary: CourseSummary = {
      id: row.id,
      platformId: row.platform_id,
      code: row.code,
      title: row.title,
      term: row.term_code,
      department: row.department,
      modality: row.modality,
      weeks: row.weeks,
      status: row.status,
      classSections,
      classSectionKind: row.class_section_kind,
      instructors: ofCourse.instructors,
      assistants: ofCourse.assistants,
      owner: ownerOf(ofCourse),
      state: stateOf(row),
      template:
        row.template_key !== null && row.version !== null
          ? {
              key: row.template_key,
              title: row.template_title ?? row.template_key,
              version: row.version,
              newest: row.newest ?? row.version,
            }
          : null,
      readAt: row.read_at === null ? null : instantOfRow(row.read_at),
      check:
        row.check_as_of !== null && row.check_readiness !== null && row.check_counts !== null
          ? {
              asOf: row.check_as_of,
              readiness: row.check_readiness,
              counts: JSON.parse(row.check_counts),
            }
          : null,
    }
    return {
      summary,
      templateId: row.template_id,
      version: row.version,
      partsTaken: row.parts_taken === null ? [] : PartsTakenList.parse(JSON.parse(row.parts_taken)),
      strengthsVersion: row.strengths_version,
      facts: factsOf(row, term, terms, classSections, ofCourse),
    }
  })
}

const calendarOf = (row: CourseRow): CourseCalendar =>
  CourseCalendar.parse(JSON.parse(row.calendar ?? '{}'))

/** Keeps what somebody decided about a course's calendar. */
export const storeCourseCalendar = async (
  database: Database,
  id: number,
  calendar: CourseCalendar,
): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET calendar = ?
     WHERE id = ?`,
    [JSON.stringify(calendar), id],
  )
}

/** The facts of a course with another calendar than the one it has. */
export const withCalendar = (
  facts: Facts,
  { meetingDays, units }: CourseCalendar,
  nextTerm: Term | undefined,
): Facts => {
  const { meetingDays: _, units: __, nextTerm: ___, ...rest } = facts
  return {
    ...rest,
    ...(meetingDays.length > 0 ? { meetingDays } : {}),
    ...(units.length > 0 ? { units } : {}),
    ...(nextTerm ? { nextTerm } : {}),
  }
}

type PeopleFacts = Pick<Facts, 'instructors' | 'assistants' | 'owner' | 'moduleOwners'>

const factsOf = (
  row: CourseRow,
  term: Term,
  terms: ReadonlyMap<string, Term>,
  classSections: string[],
  people: PeopleFacts,
): Facts => {
  const calendar = calendarOf(row)
  return withCalendar(
    bareFacts(row, term, classSections, people),
    calendar,
    calendar.nextTerm === null ? undefined : terms.get(calendar.nextTerm),
  )
}

const bareFacts = (
  row: CourseRow,
  term: Term,
  classSections: string[],
  people: PeopleFacts,
): Facts => ({
  schema: 'wickerframe.facts/1',
  code: row.code,
  title: row.title,
  department: row.department,
  modality: row.modality,
  weeks: row.weeks,
  term,
  ...(row.session_code === null ? {} : { session: row.session_code }),
  classSections,
  classSectionKind: row.class_section_kind,
  ...people,
  topics: JSON.parse(row.topics),
  answers: row.answers === null ? {} : JSON.parse(row.answers),
  ...(row.room === null ? {} : { room: row.room }),
  ...(row.reader_name === null ? {} : { readerName: row.reader_name }),
})

/** Courses somebody may see, by code, with their latest check that holds on a date. */
export const listCourses = async (
  database: Database,
  person: Person | 'system',
  asOf: string,
): Promise<StoredCourse[]> => {
  const visible = visibleTo(person, 'courses.id')
  return readRows(
    database,
    await rowsOf<CourseRow>(
      database,
      `${select} WHERE ${visible.where} ORDER BY courses.code, courses.id`,
      [asOf, asOf, ...visible.values],
    ),
  )
}

/** Those of these courses that are there, to be checked: without the check they had. */
export const findCourses = async (
  database: Database,
  courseIds: readonly number[],
): Promise<StoredCourse[]> => {
  const ids = anyOf(courseIds)
  return readRows(
    database,
    await rowsOf<CourseRow>(
      database,
      `${selectUnchecked} WHERE courses.id IN ${ids.sql}`,
      ids.values,
    ),
  )
}

/** One course, or null: not there and not theirs are answered alike. */
export const findCourse = async (
  database: Database,
  id: number,
  person: Person | 'system',
  asOf: string,
): Promise<StoredCourse | null> => {
  const visible = visibleTo(person, 'courses.id')
  const rows = await rowsOf<CourseRow>(
    database,
    `${select} WHERE courses.id = ? AND (${visible.where})`,
    [asOf, asOf, id, ...visible.values],
  )
  return (await readRows(database, rows))[0] ?? null
}

/** Holds a course until the transaction ends, so that nobody else decides on it meanwhile. */
export const lockCourse = async (database: Database, id: number): Promise<void> => {
  await firstRow(
    database,
    `SELECT id
     FROM courses
     WHERE id = ?
     FOR UPDATE`,
    [id],
  )
}

/** To which version a course is held, with what of newer ones was brought into it. */
export const HeldToState = z.strictObject({
  templateId: z.number().int().nullable(),
  version: z.number().int().nullable(),
  partsTaken: PartsTakenList,
})
export type HeldToState = z.output<typeof HeldToState>

/** To what a course is held now, under a lock. */
export const heldToState = async (database: Database, id: number): Promise<HeldToState> => {
  const row = await firstRow<{
    template_id: number | null
    version: number | null
    parts_taken: string | null
  }>(
    database,
    `SELECT template_id, version, parts_taken
     FROM courses
     WHERE id = ?
     FOR UPDATE`,
    [id],
  )
  return {
    templateId: row?.template_id ?? null,
    version: row?.version ?? null,
    partsTaken:
      row?.parts_taken === null || row?.parts_taken === undefined
        ? []
        : PartsTakenList.parse(JSON.parse(row.parts_taken)),
  }
}

/** To what a course is held once a version, or a part of one, was brought into it. A part is laid over the version it is under. */
export const heldToAfter = (
  present: HeldToState,
  heldTo: { templateId: number; version: number; partsTaken: PartsTaken | null },
): HeldToState => {
  if (!heldTo.partsTaken || present.templateId === null)
    return { templateId: heldTo.templateId, version: heldTo.version, partsTaken: [] }
  const { only, except } = heldTo.partsTaken
  return {
    ...present,
    partsTaken: [
      ...present.partsTaken,
      {
        templateId: heldTo.templateId,
        version: heldTo.version,
        only: only === null ? null : [...only],
        except: [...except],
      },
    ].slice(-20),
  }
}

export const holdCourseTo = async (
  database: Database,
  id: number,
  { templateId, version, partsTaken }: HeldToState,
): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET template_id = ?, version = ?, parts_taken = ?, strengths_version = NULL
     WHERE id = ?`,
    [templateId, version, partsTaken.length === 0 ? null : JSON.stringify(partsTaken), id],
  )
}

/** Puts a course under a version for checking only. */
export const putUnder = async (
  database: Database,
  id: number,
  { templateId, number }: { templateId: number; number: number },
): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET template_id = ?, version = ?
     WHERE id = ?`,
    [templateId, number, id],
  )
}

/** Holds a course to the strengths of a version; null: by those of its own. */
export const adoptStrengths = async (
  database: Database,
  id: number,
  version: number | null,
): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET strengths_version = ?
     WHERE id = ?`,
    [version, id],
  )
}
