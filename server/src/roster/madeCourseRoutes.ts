import type { CourseValuesReport, madeCourseRoutes, RolloutOrder } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { mustLookAfter } from '../courses/departments.ts'
import {
  courseValues,
  formatOf,
  instructionalWeeks,
  renderName,
  topicsInOrder,
  type Facts,
  type Term,
} from '@wickerframe/core'
import { takenForWords, type CourseValuesRow, type RosterCourse } from '@wickerframe/interchange'
import { inTransaction } from '@wickerframe/storage'
import { answered } from '../http/answered.ts'
import { fileOf } from '../http/fileOf.ts'
import { digestOf } from '../digest.ts'
import { recordAudit } from '../audit/audit.ts'
import { decideField } from '../courses/courseDecisions.ts'
import { findValues, storeValues, withRow, type KeptValues } from '../courses/courseValues.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { importRoster } from './roster.ts'
import { createRun } from '../runs/newRun.ts'
import { findVersion, listVersionNumbers } from '../templates/templates.ts'
import { findTerm, listTerms } from '../terms/terms.ts'
import { notFound } from '../http/problem.ts'
import { mustBeAsShown } from '../http/shown.ts'

/** In small groups at a time, so that the platform is not run over. */
const inGroups = async <T>(
  all: readonly T[],
  work: (member: T) => Promise<void>,
): Promise<void> => {
  for (let i = 0; i < all.length; i += 8) await Promise.all(all.slice(i, i + 8).map(work))
}

const factsOf = (course: RosterCourse, term: Term): Facts => ({
  schema: 'wickerframe.facts/1',
  code: course.code,
  title: course.title,
  department: course.department,
  modality: course.modality,
  weeks: course.weeks,
  term,
  ...(course.session === null ? {} : { session: course.session }),
  classSections: course.classSections,
  classSectionKind: course.classSectionKind,
  instructors: course.instructors,
  assistants: course.duties?.assistants ?? [],
  moduleOwners: {},
  topics: {},
  answers: {},
})

/** Makes courses on the platform under ids of ours, with their people enrolled. Asked for twice, each is made once. */
const make = async (
  { connector }: Situation,
  courses: readonly {
    platformId: string
    name: string
    people: readonly { email: string; name: string }[]
  }[],
): Promise<void> =>
  inGroups(courses, async ({ platformId, name, people }) => {
    answered(await connector.create(platformId, name.slice(0, 300)), `make ${platformId}`)
    if (people.length > 0)
      answered(await connector.enrol(platformId, people), `enrol people in ${platformId}`)
  })

/** Courses by what a table may call them: the platform course id as it is, code and class section in lower case. */
const coursesByName = (courses: readonly StoredCourse[]): Map<string, StoredCourse[]> => {
  const byName = new Map<string, StoredCourse[]>()
  for (const course of courses) {
    const { platformId, code, classSections } = course.summary
    for (const name of [
      platformId,
      ...classSections.map((section) => `${code} ${section}`.toLowerCase()),
    ])
      byName.set(name, [...(byName.get(name) ?? []), course])
  }
  return byName
}

const slug = (text: string): string => text.toLowerCase().replace(/[^\w-]+/g, '-')

export const madeCourseHandlers: HandlersOf<typeof madeCourseRoutes> = {
  /** Makes courses for roster rows that name none, named by a template's naming format, and brings them into the roster. */
  makeCourses: async (handling) => {
    const { pool, person, query } = handling
    const { how, template } = query
    const numbers = template === undefined ? [] : await listVersionNumbers(pool, template)
    const version =
      template === undefined ? null : await findVersion(pool, template, numbers[0] ?? 0)
    if (template !== undefined && !version) throw notFound('template with a version')
    const read = await fileOf(
      handling,
      'roster',
      { making: how },
      'the roster rows as the body, as text/csv',
    )
    mustLookAfter(
      person,
      read.courses.map(({ department }) => department),
    )
    const terms = new Map((await listTerms(pool)).map((term) => [term.code, term]))
    const errors = [
      ...read.errors,
      ...read.courses.flatMap((course) =>
        terms.has(course.term)
          ? []
          : [
              {
                line: course.line,
                column: 'term',
                found: course.term,
                reason: `the code of a term: ${[...terms.keys()].join(', ')}`,
              },
            ],
      ),
    ]
    const dry = query.dry
    const named =
      errors.length > 0
        ? []
        : read.courses.map((course) => {
            const term = terms.get(course.term)
            const name =
              version && term
                ? renderName(
                    formatOf(version.document.naming.courseName),
                    courseValues(factsOf(course, term)),
                  ).text
                : `${course.code} ${course.title}`
            return {
              platformId: course.platformId,
              name,
              classSections: course.classSections,
              people: course.instructors,
            }
          })
    const made = named.map(({ platformId, name, classSections }) => ({
      platformId,
      name,
      classSections,
    }))
    const digest = digestOf({
      how,
      template: template ?? null,
      version: version?.digest ?? null,
      courses: read.courses,
      named,
    })
    const note = takenForWords(read.takenFor)
    if (errors.length > 0 || dry) return { dry, made, errors, digest, note }
    mustBeAsShown(query.shown ?? null, digest)
    await make(handling, named)
    await importRoster(pool, read.courses, () => ({}), person.email)
    return { dry, made, errors: [], digest, note }
  },
  /** Puts values into courses from a table that was pasted or imported; with ?dry=1 only says what it would change. */
  setCourseValues: async (handling) => {
    const { pool, person, today, query } = handling
    const dry = query.dry
    const { rows, errors, takenFor } = await fileOf(
      handling,
      'course-values',
      {},
      'the table as the body, as text/csv',
    )
    const note = takenForWords(takenFor)
    const all = (await listCourses(pool, person, today)).filter(
      (stored) => stored.summary.status === 'teaching' || stored.summary.status === 'preparing',
    )
    const byName = coursesByName(all)
    const named = (name: string): StoredCourse[] => [
      ...new Set([...(byName.get(name) ?? []), ...(byName.get(name.toLowerCase()) ?? [])]),
    ]
    const found = rows.flatMap((row) => {
      const [first, ...more] = named(row.course)
      if (!first || more.length > 0) {
        errors.push({
          line: row.line,
          column: 'course',
          found: row.course,
          reason: first
            ? `one course; ${more.length + 1} have this class section: use the platform course id`
            : 'a course of the roster: its platform course id, or code and class section',
        })
        return []
      }
      const late = Object.keys(row.topics).find((week) => Number(week) > first.facts.weeks)
      if (late !== undefined)
        errors.push({
          line: row.line,
          column: `topic ${late}`,
          found: row.topics[late] ?? '',
          reason: `at most week ${first.facts.weeks}`,
        })
      return [{ row, stored: first }]
    })
    if (errors.length > 0) return { dry, courses: 0, changes: [], errors, digest: '', note }
    const changes: CourseValuesReport['changes'] = []
    let digest = ''
    await inTransaction(pool, async (database) => {
      changes.length = 0
      const wanted: { id: number; next: KeptValues; instructor: CourseValuesRow['instructor'] }[] =
        []
      for (const { row, stored } of found) {
        const kept = await findValues(database, stored.summary.id)
        if (!kept) continue
        const next = withRow(kept, row)
        const course = `${stored.summary.code} ${stored.summary.classSections.join(', ')}`
        const told = (what: string, from: unknown, to: unknown) => {
          if (JSON.stringify(from) !== JSON.stringify(to))
            changes.push({ course, what, from: String(from ?? ''), to: String(to ?? '') })
        }
        for (const week of Object.keys(row.topics))
          told(`topic of week ${week}`, kept.topics[week], next.topics[week])
        told('room', kept.room, next.room)
        told(
          'meeting days',
          kept.calendar.meetingDays.join(', '),
          next.calendar.meetingDays.join(', '),
        )
        told(
          'units',
          kept.calendar.units
            .map((unit) => `${unit.number}: ${unit.firstWeek}–${unit.lastWeek}`)
            .join('; '),
          next.calendar.units
            .map((unit) => `${unit.number}: ${unit.firstWeek}–${unit.lastWeek}`)
            .join('; '),
        )
        if (row.instructor)
          told(
            'instructor',
            stored.summary.instructors.map((instructor) => instructor.email).join(', '),
            row.instructor.email,
          )
        wanted.push({ id: stored.summary.id, next, instructor: row.instructor })
      }
      digest = digestOf({ rows, changes })
      if (!dry) mustBeAsShown(query.shown ?? null, digest)
      if (!dry)
        for (const { id, next, instructor } of wanted) {
          await storeValues(database, id, next, instructor)
          if (instructor) await decideField(database, id, 'instructors', person.email)
        }
      if (!dry)
        await recordAudit(database, {
          who: person.email,
          what: 'values of courses set',
          subject: `${found.length} courses`,
          to: changes.slice(0, 200),
        })
    })
    return { dry, courses: found.length, changes: changes.slice(0, 500), errors: [], digest, note }
  },
  /** Makes next term's courses from this term's, and plans for each what comes along. One rollout for each version. */
  makeNextTerm: async (handling) => {
    const { pool, person, today, body } = handling
    const wanted = body
    const term = await findTerm(pool, wanted.term)
    if (!term) throw notFound('term')
    const all = await listCourses(pool, person, today)
    const sources = wanted.courses.flatMap(
      (id) => all.find((stored) => stored.summary.id === id) ?? [],
    )
    if (sources.length < new Set(wanted.courses).size) throw notFound('course among those chosen')
    const leftOut: { course: number; reason: string }[] = []
    const going = sources.flatMap((source) => {
      const { summary, facts } = source
      const no = (reason: string) => {
        leftOut.push({ course: summary.id, reason })
        return []
      }
      if (!summary.template || source.templateId === null)
        return no('it is under no template, so there is nothing to build the new course from')
      if (facts.term.code === term.code) return no('it is a course of that term')
      const session = term.sessions.some((session) => session.code === facts.session)
        ? facts.session
        : undefined
      const weeks = instructionalWeeks({ term, session }).filter((week) => week.number > 0).length
      if (weeks < 1) return no('the term has no weeks')
      return [
        {
          source,
          template: summary.template,
          session,
          weeks: Math.min(facts.weeks, weeks), // The number of the course it comes from makes it the only one, however long the rest.
          platformId: slug(
            `${term.code}-${summary.id}-${summary.code}-${summary.classSections.join('-')}`,
          ).slice(0, 60),
        },
      ]
    })
    await make(
      handling,
      going.map(({ source, platformId }) => ({
        platformId,
        name: `${source.summary.code} ${source.summary.title} · ${term.title}`,
        people: source.summary.instructors,
      })),
    )
    // By the order of the weeks of class: what finds no week is told by the plan.
    const topics = new Map(
      going.map(({ source: { facts }, platformId, session, weeks }) => [
        platformId,
        topicsInOrder(facts.topics, facts, { term, session, weeks }).topics,
      ]),
    )
    await importRoster(
      pool,
      going.map(({ source: { summary, facts }, session, weeks, platformId }, i) => ({
        line: i + 1,
        platformId,
        code: summary.code,
        title: summary.title,
        department: summary.department,
        term: term.code,
        session: session ?? null,
        modality: summary.modality,
        weeks,
        status: 'teaching' as const,
        classSectionKind: summary.classSectionKind,
        classSections: summary.classSections,
        instructors: summary.instructors,
        // Who helps is settled anew each term.
        duties: { owner: facts.owner ?? null, assistants: [] },
      })),
      (course) => topics.get(course.platformId) ?? {},
      person.email,
    )
    const made = new Map(
      (await listCourses(pool, person, today)).map((stored) => [
        stored.summary.platformId,
        stored.summary.id,
      ]),
    )
    const runs: number[] = []
    for (const key of new Set(going.map(({ template }) => template.key))) {
      const these = going.filter(({ template }) => template.key === key)
      const number = (await listVersionNumbers(pool, key))[0] ?? these[0]?.template.version ?? 1
      const version = await findVersion(pool, key, number)
      if (!version) continue
      const order: RolloutOrder = {
        mode: 'carry',
        template: key,
        version: number,
        carry: [...wanted.carry],
      }
      runs.push(
        await createRun(pool, {
          kind: 'rollout',
          state: 'planning',
          title: `${term.title}: ${version.document.title}, version ${number}, from ${these.length} earlier ${these.length === 1 ? 'course' : 'courses'}`,
          by: person.email,
          asOf: null,
          templateId: version.templateId,
          version: number,
          rollout: { order, rule: null, standing: false },
          tasks: these.flatMap(({ source, platformId }) => {
            const courseId = made.get(platformId)
            return courseId === undefined ? [] : [{ courseId, sourceCourseId: source.summary.id }]
          }),
        }),
      )
    }
    return { runs, leftOut }
  },
}
