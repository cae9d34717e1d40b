import type { TermChange, termRoutes } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import {
  daysBetween,
  everyExpected,
  expandCourse,
  instructionalWeeks,
  localDateOf,
  type ExpectedCourse,
  type Facts,
  type Template,
  type Term,
} from '@wickerframe/core'
import { termCalendar } from '@wickerframe/interchange'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { findVersionById } from '../templates/templates.ts'
import { findTerm, listTerms, saveTerm, termRevision } from './terms.ts'
import { digestOf } from '../digest.ts'
import { fileOf } from '../http/fileOf.ts'
import type { Person } from '../people/people.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { mustBeAsShown } from '../http/shown.ts'
import { calendarOut } from '../http/calendarOut.ts'

const termIn = async ({ pool, at }: Situation & { at: { term: string } }): Promise<Term> => {
  const term = await findTerm(pool, at.term)
  if (!term) throw notFound('term')
  return term
}

/** Courses of a term: all of them, or those that somebody may see. */
const coursesOf = async (
  { pool, today }: Situation,
  code: string,
  seenBy: Person | 'system' = 'system',
): Promise<StoredCourse[]> =>
  (await listCourses(pool, seenBy, today)).filter((stored) => stored.facts.term.code === code)

/** Why a term does not fit a course, or null. */
const misfitOf = (facts: Facts, term: Term): string | null => {
  if (
    facts.session !== undefined &&
    !term.sessions.some((session) => session.code === facts.session)
  )
    return `it runs in session ${facts.session}, which the term no longer has`
  const available = instructionalWeeks({ term, session: facts.session }).filter(
    (week) => week.number > 0,
  ).length
  return available < facts.weeks
    ? `it has ${facts.weeks} weeks, and the term would have ${available} for it`
    : null
}

const mostListed = 12

/** Courses that a term changes alike: the same template, length, session and conditions. */
const alike = ({ facts, templateId, version }: StoredCourse): string =>
  JSON.stringify([
    templateId,
    version,
    facts.weeks,
    facts.session,
    facts.modality,
    facts.department,
    facts.classSectionKind,
    facts.meetingDays,
    facts.units,
  ])

/** A digest of what the preview of an edited term is made from: the term, as edited and as it stands, and the courses under it. */
const digestOfPreview = (edited: Term, present: Term, courses: readonly StoredCourse[]): string =>
  digestOf({
    edited,
    present: termRevision(present),
    courses: courses.map((stored) => [stored.summary.id, alike(stored)]),
  })

/** What an edited term changes in one course; null for nothing. */
const changeOf = (
  facts: Facts,
  edited: Term,
  template: Template | null,
): Omit<TermChange, 'courses'> | null => {
  const weeksBefore = instructionalWeeks({
    term: facts.term,
    session: facts.session,
    count: facts.weeks,
  })
  const problem = misfitOf(facts, edited)
  if (problem !== null)
    return {
      weeks: { before: weeksBefore.length, after: null },
      names: [],
      dates: [],
      more: 0,
      problem,
    }
  const weeksAfter = instructionalWeeks({
    term: edited,
    session: facts.session,
    count: facts.weeks,
  })
  const weeks = { before: weeksBefore.length, after: weeksAfter.length }
  const before = template ? expandCourse({ template, facts }) : null
  const after = template ? expandCourse({ template, facts: { ...facts, term: edited } }) : null
  if (!before?.ok || !after?.ok)
    return JSON.stringify(weeksBefore) === JSON.stringify(weeksAfter)
      ? null
      : { weeks, names: [], dates: [], more: 0, problem: null }
  const { names, dates } = differences(before.value, after.value)
  if (names.length + dates.length === 0) return null
  return {
    weeks,
    names: names.slice(0, mostListed),
    dates: dates.slice(0, mostListed),
    more: Math.max(0, names.length - mostListed) + Math.max(0, dates.length - mostListed),
    problem: null,
  }
}

const differences = (
  before: ExpectedCourse,
  after: ExpectedCourse,
): Pick<TermChange, 'names' | 'dates'> => {
  const later = new Map(
    everyExpected(after.parts).map((part) => [`${part.key}/${part.repetitionNumber}`, part]),
  )
  const day = (instant: string | null, course: ExpectedCourse) =>
    instant === null ? null : localDateOf(instant, course.facts.term.timeZone)
  const names: TermChange['names'] =
    before.name === after.name ? [] : [{ from: before.name, to: after.name }]
  const dates: TermChange['dates'] = []
  for (const part of everyExpected(before.parts)) {
    const now = later.get(`${part.key}/${part.repetitionNumber}`)
    if (!now) continue
    if (now.name !== part.name) names.push({ from: part.name, to: now.name })
    for (const [what, from, to] of [
      ['due', part.dueAt, now.dueAt],
      ['opens', part.opensAt, now.opensAt],
    ] as const)
      if (from !== to)
        dates.push({ name: part.name, what, from: day(from, before), to: day(to, after) })
  }
  return { names, dates }
}

/** No term is longer. */
const mostDaysOfTerm = 800

export const termHandlers: HandlersOf<typeof termRoutes> = {
  listTerms: async ({ pool }) => listTerms(pool),
  readTerm: async (handling) => {
    const term = await termIn(handling)
    const courses = await coursesOf(handling, term.code, handling.person)
    return {
      term,
      revision: termRevision(term),
      courses: courses.map(({ summary, facts }) => ({
        id: summary.id,
        code: summary.code,
        title: summary.title,
        weeks: facts.weeks,
        session: facts.session ?? null,
      })),
    }
  },
  previewTerm: async (handling) => {
    const { pool, body } = handling
    const { term: edited } = body
    const term = await termIn(handling)
    const courses = await coursesOf(handling, term.code)
    const groups = new Map<string, StoredCourse[]>()
    for (const stored of courses)
      groups.set(alike(stored), [...(groups.get(alike(stored)) ?? []), stored])
    const changes: TermChange[] = []
    for (const group of groups.values()) {
      const [first] = group
      if (!first) continue
      const version =
        first.templateId !== null && first.version !== null
          ? await findVersionById(pool, first.templateId, first.version)
          : null
      const change = changeOf(first.facts, edited, version?.document ?? null)
      if (change)
        changes.push({
          ...change,
          courses: group.map(({ summary }) => ({
            id: summary.id,
            code: summary.code,
            title: summary.title,
          })),
        })
      // Between groups others are served: a term may hold thousands of courses.
      await new Promise((resolve) => setImmediate(resolve))
    }
    const touched = changes.reduce((sum, { courses }) => sum + courses.length, 0)
    return {
      digest: digestOfPreview(edited, term, courses),
      courses: courses.length,
      unchanged: courses.length - touched,
      changes: changes.sort((a, b) => b.courses.length - a.courses.length),
    }
  },
  saveTerm: async (handling) => {
    const { pool, person, at, query, body } = handling
    const { was, term } = body
    if (term.code !== at.term)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /term/code: found ${term.code}; expected ${at.term}, as in the address: a term keeps its code`,
      )
    const courses = await coursesOf(handling, term.code)
    const inTheWay = courses.flatMap(({ facts }) => {
      const misfit = misfitOf(facts, term)
      return misfit === null ? [] : [`${facts.code}: ${misfit}`]
    })
    if (inTheWay.length > 0)
      throw new HttpProblem(
        409,
        'courses-in-the-way',
        `the term would not fit ${inTheWay.length} of its courses; ${inTheWay.slice(0, 3).join('; ')}${inTheWay.length > 3 ? ' …' : ''}`,
      )
    const present = await findTerm(pool, term.code)
    // Where somebody else saved the term itself, the answer is the clash, with theirs beside it.
    if (present && was === termRevision(present))
      mustBeAsShown(query.shown ?? null, digestOfPreview(term, present, courses))
    const saved = await saveTerm(pool, term, was, person.email)
    if (saved.state === 'clash')
      throw new HttpProblem(
        409,
        'clash',
        'somebody else saved this term meanwhile; both are shown',
        { clash: { code: 'clash', where: term.title, present: saved.present, wanted: term } },
      )
    if (saved.state === 'taken')
      throw new HttpProblem(409, 'taken', `there is a term with the code ${term.code} already`)
    return { revision: saved.revision }
  },
  termCalendar: async (handling) => {
    const term = await termIn(handling)
    return calendarOut(handling, term.code, (stampedAt) =>
      termCalendar(term, instructionalWeeks({ term }), stampedAt),
    )
  },
  readFreeDays: async (handling) => {
    const { from, until } = handling.query
    if (daysBetween(from, until) > mostDaysOfTerm)
      throw new HttpProblem(
        400,
        'unusable-input',
        `until: found ${until}; expected a day at most ${mostDaysOfTerm} days after ${from}`,
      )
    const read = await fileOf(
      handling,
      'free-days',
      { from, until },
      'the calendar file as the body, as text/calendar',
    )
    if (!read.ok)
      throw new HttpProblem(
        400,
        'unusable-input',
        `the file: found ${read.problems[0]?.found}; expected ${read.problems[0]?.expected}`,
        { problems: read.problems },
      )
    return read.value
  },
}
