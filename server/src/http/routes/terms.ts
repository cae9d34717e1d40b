import {
  daysBetween,
  everyExpected,
  expandCourse,
  instructionalWeeks,
  isPlainDate,
  localDateOf,
  weeksOfUnit,
  type ExpectedCourse,
  type FreeDays,
  type Facts,
  type Template,
  type Term,
} from '@wickerframe/core'
import {
  CourseCalendar,
  TermPreviewRequest,
  TermPut,
  type TermChange,
  type TermDetail,
  type TermPreview,
} from '@wickerframe/contract'
import { courseCalendar, termCalendar } from '@wickerframe/interchange'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../../repositories/audit.ts'
import {
  listCourses,
  storeCourseCalendar,
  withCalendar,
  type StoredCourse,
} from '../../repositories/courses.ts'
import { findVersionById } from '../../repositories/templates.ts'
import { findTerm, saveTerm, termRevision } from '../../repositories/terms.ts'
import { bodyOf, parameter, type Handler, type Handling } from '../handler.ts'
import { digestOf } from '../../digest.ts'
import { fileOf } from '../fileOf.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { mustBeAsShown, shownIn } from '../shown.ts'
import { courseIn } from './courses.ts'

const termIn = async ({ request, pool }: Handling): Promise<Term> => {
  const term = await findTerm(pool, parameter(request, 'code'))
  if (!term) throw notFound('term')
  return term
}

const coursesOf = async ({ pool, today }: Handling, code: string): Promise<StoredCourse[]> =>
  (await listCourses(pool, 'system', today)).filter((stored) => stored.facts.term.code === code)

export const getTerm: Handler = async (handling): Promise<TermDetail> => {
  const term = await termIn(handling)
  const courses = await coursesOf(handling, term.code)
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
}

/** Why a term does not fit a course, or null. */
const misfitOf = (facts: Facts, term: Term): string | null => {
  if (facts.session !== undefined && !term.sessions.some((one) => one.code === facts.session))
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

export const postTermPreview: Handler = async (handling): Promise<TermPreview> => {
  const { pool, request } = handling
  const { term: edited } = bodyOf(TermPreviewRequest, request)
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
  const touched = changes.reduce((sum, one) => sum + one.courses.length, 0)
  return {
    digest: digestOfPreview(edited, term, courses),
    courses: courses.length,
    unchanged: courses.length - touched,
    changes: changes.sort((a, b) => b.courses.length - a.courses.length),
  }
}

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

export const postTerm: Handler = async (handling) => {
  const { request, pool, person } = handling
  const { was, term } = bodyOf(TermPut, request)
  if (term.code !== parameter(request, 'code'))
    throw new HttpProblem(
      400,
      'unusable-input',
      `at /term/code: found ${term.code}; expected ${parameter(request, 'code')}, as in the address: a term keeps its code`,
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
    mustBeAsShown(shownIn(request), digestOfPreview(term, present, courses))
  const saved = await saveTerm(pool, term, was, person.email)
  if (saved.state === 'clash')
    throw new HttpProblem(409, 'clash', 'somebody else saved this term meanwhile; both are shown', {
      clash: { code: 'clash', where: term.title, present: saved.present, wanted: term },
    })
  if (saved.state === 'taken')
    throw new HttpProblem(409, 'taken', `there is a term with the code ${term.code} already`)
  return { revision: saved.revision }
}

const calendarOut = (
  { response, today }: Handling,
  name: string,
  write: (stampedAt: string) => string,
): undefined => {
  response
    .attachment(`${name}.ics`)
    .type('text/calendar; charset=utf-8')
    .send(write(`${today}T12:00:00Z`))
}

export const getTermCalendar: Handler = async (handling) => {
  const term = await termIn(handling)
  return calendarOut(handling, term.code, (stampedAt) =>
    termCalendar(term, instructionalWeeks({ term }), stampedAt),
  )
}

export const getCourseCalendar: Handler = async (handling) => {
  const stored = await courseIn(handling)
  const version =
    stored.templateId !== null && stored.version !== null
      ? await findVersionById(handling.pool, stored.templateId, stored.version)
      : null
  const expansion = version
    ? expandCourse({
        template: version.document,
        facts: stored.facts,
        mintFrom: stored.summary.platformId,
      })
    : null
  if (!expansion?.ok)
    throw new HttpProblem(
      409,
      'no-schedule',
      'the course is under no template yet, so there is no schedule to give',
    )
  return calendarOut(handling, stored.summary.platformId, (stampedAt) =>
    courseCalendar(expansion.value, stored.summary.platformId, stampedAt),
  )
}

/** Decides on meeting days, units and a second term, for designers and the course's own instructors. */
export const postCourseCalendar: Handler = async (handling) => {
  const { request, pool, person } = handling
  const stored = await courseIn(handling)
  const calendar = bodyOf(CourseCalendar, request)
  const nextTerm =
    calendar.nextTerm === null
      ? undefined
      : ((await findTerm(pool, calendar.nextTerm)) ?? undefined)
  const refuse = (path: string, found: string, expected: string) =>
    new HttpProblem(400, 'unusable-input', `at ${path}: found ${found}; expected ${expected}`, {
      problems: [{ code: 'not-allowed', path, found, expected }],
    })
  const { term } = stored.facts
  if (calendar.nextTerm !== null && !nextTerm)
    throw refuse('/nextTerm', calendar.nextTerm, 'the code of a term')
  if (nextTerm && nextTerm.firstDay <= term.lastDay)
    throw refuse(
      '/nextTerm',
      nextTerm.title,
      `a term that begins after ${term.title}, which ends on ${term.lastDay}`,
    )
  const facts = withCalendar(stored.facts, calendar, nextTerm)
  const weeks = instructionalWeeks({ term, nextTerm, session: facts.session, count: facts.weeks })
  calendar.units.forEach((unit, i) => {
    if (weeksOfUnit(unit, weeks).length === 0)
      throw refuse(
        `/units/${i}`,
        JSON.stringify(unit),
        `weeks of the course, ${weeks[0]?.number ?? 1} to ${weeks.at(-1)?.number ?? 0}, or days of them`,
      )
    if (calendar.units.some((other, j) => j < i && other.number === unit.number))
      throw refuse(`/units/${i}/number`, String(unit.number), 'a number that no unit before it has')
  })
  await inTransaction(pool, async (database) => {
    await storeCourseCalendar(database, stored.summary.id, calendar)
    await recordAudit(database, {
      who: person.email,
      what: 'calendar of the course decided',
      subject: `course ${stored.summary.id}`,
      from: {
        meetingDays: stored.facts.meetingDays,
        units: stored.facts.units,
        nextTerm: stored.facts.nextTerm?.code,
      },
      to: calendar,
    })
  })
  return { facts }
}

/** No term is longer. */
const mostDaysOfTerm = 800

export const postFreeDays: Handler = async (handling): Promise<FreeDays> => {
  const { from, until } = handling.request.query
  if (
    typeof from !== 'string' ||
    typeof until !== 'string' ||
    !isPlainDate(from) ||
    !isPlainDate(until) ||
    daysBetween(from, until) > mostDaysOfTerm
  )
    throw new HttpProblem(
      400,
      'unusable-input',
      'say ?from=YYYY-MM-DD&until=YYYY-MM-DD, the days of the term',
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
}
