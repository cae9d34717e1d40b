import { may, type WaiverChoices, type WaiverLine, type WaiverQueue } from '@wickerframe/contract'
import { everyPart, ruleById, rules } from '@wickerframe/core'
import { rowsOf, type Database } from '@wickerframe/storage'
import { namedCourse } from '../conformance/checkedCourses.ts'
import { findCourses } from '../courses/courses.ts'
import { actingTo, visibleTo } from '../courses/visible.ts'
import type { Person } from '../people/people.ts'
import { versionById } from '../templates/versions.ts'
import { listTerms } from '../terms/terms.ts'
import { waiverColumns, waiverOf, type WaiverRow } from './waivers.ts'
import { reaches } from './wideWaivers.ts'

const mostPast = 100

interface LineRow extends WaiverRow {
  course: number | null
  department: string | null
  template: string | null
  term: string | null
  listed: number
  courses: number | null
  asks: string | null
  may_decide: number
}

const isPast = ({ state, until_date }: LineRow, today: string): boolean =>
  state === 'refused' ||
  state === 'withdrawn' ||
  (state === 'approved' && until_date !== null && until_date < today)

/** Waivers of the courses somebody may see, and those for many courses: asked for, in force (also in advance), and past. */
export const waiverQueue = async (
  database: Database,
  person: Person,
  today: string,
): Promise<WaiverQueue> => {
  const rows = await lineRows(database, person)
  const ids = [...new Set(rows.flatMap(({ course }) => course ?? []))]
  const courses = new Map(
    (await findCourses(database, ids)).map(({ summary }) => [summary.id, namedCourse(summary)]),
  )
  const decides = may(person, 'decide waivers')
  const lineOf = (row: LineRow): WaiverLine => ({
    ...waiverOf(row),
    title: row.rule === null ? '' : (ruleById(row.rule)?.title ?? row.rule),
    asks: row.asks ?? row.asked_by,
    course: row.course === null ? null : (courses.get(row.course) ?? null),
    reach: {
      department: row.department,
      template: row.template,
      term: row.term,
      listed: row.listed === 1,
      courses: Number(row.courses ?? 1),
    },
    mayDecide: decides && row.may_decide === 1,
  })
  const past = rows.filter((row) => isPast(row, today))
  const present = rows.filter((row) => !isPast(row, today))
  const last = ({ until_date }: LineRow): string => until_date ?? '9999-12-31'
  return {
    choices: await choicesOf(database),
    asked: present.filter(({ state }) => state === 'asked').map(lineOf),
    inForce: present
      .filter(({ state }) => state === 'approved')
      .sort((a, b) => (last(a) < last(b) ? -1 : last(a) > last(b) ? 1 : a.id - b.id))
      .map(lineOf),
    past: past.toReversed().slice(0, mostPast).map(lineOf),
  }
}

const lineRows = (database: Database, person: Person): Promise<LineRow[]> => {
  const seen = visibleTo(person, 'waivers.course_id')
  const decided = visibleTo(actingTo(person, 'decide waivers'), 'waivers.course_id')
  const { departments } = actingTo(person, 'decide waivers')
  const ofMine =
    departments.length === 0
      ? { sql: 'TRUE', values: [] }
      : {
          sql: `waivers.department IN (${departments.map(() => '?').join(', ')})`,
          values: departments,
        }
  return rowsOf(
    database,
    `SELECT ${waiverColumns}, waivers.course_id AS course, waivers.department,
       templates.title AS template, terms.title AS term, waivers.listed,
       IF(
         waivers.course_id IS NULL, (SELECT COUNT(*) FROM courses WHERE ${reaches}), NULL
       ) AS courses, people.name AS asks,
       IF(waivers.course_id IS NULL, ${ofMine.sql}, ${decided.where}) AS may_decide
     FROM waivers
     LEFT JOIN templates ON templates.id = waivers.template_id
     LEFT JOIN terms ON terms.code = waivers.term_code
     LEFT JOIN people ON people.email = waivers.asked_by
     WHERE waivers.course_id IS NULL OR ${seen.where}
     ORDER BY waivers.id`,
    [...ofMine.values, ...decided.values, ...seen.values],
  )
}

/** Rules by their titles, the templates that courses are under with their parts, and the departments and terms of courses. */
const choicesOf = async (database: Database): Promise<WaiverChoices> => {
  const used = await usedVersions(database)
  const templates: WaiverChoices['templates'] = []
  for (const { template_id: id, number } of used) {
    const version = await versionById(database, id, number)
    if (!version) continue
    const { key, title } = version.document
    const parts = everyPart(version.document).map((part) => ({ key: part.key, name: part.name }))
    templates.push({ key, title, parts })
  }
  return {
    rules: rules
      .map(({ id, title }) => ({ id, title }))
      .sort((a, b) => a.title.localeCompare(b.title, 'en')),
    templates,
    departments: (await usedDepartments(database)).map(({ department }) => department),
    terms: (await listTerms(database)).map(({ code, title }) => ({ code, title })),
  }
}

/** The newest version that courses are under of each template. */
const usedVersions = (database: Database) =>
  rowsOf<{ template_id: number; number: number }>(
    database,
    `SELECT template_id, MAX(version) AS number
     FROM courses
     WHERE template_id IS NOT NULL AND version IS NOT NULL
     GROUP BY template_id
     ORDER BY template_id`,
  )
const usedDepartments = (database: Database) =>
  rowsOf<{ department: string }>(
    database,
    `SELECT DISTINCT department
     FROM courses
     ORDER BY department`,
  )
