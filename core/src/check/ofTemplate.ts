import type { Course, Facts } from '../course/index.ts'
import { shortHash, type Result } from '../document/index.ts'
import { firstCourse, saidFacts } from '../firstCourse/index.ts'
import { rememberOf } from '../remember/index.ts'
import { ruleById, type AnyRule } from '../rules/index.ts'
import type { Template } from '../template/index.ts'
import { departmentsTold } from '../variant/index.ts'
import type { CheckResult, FindingPlace, Place } from './outcome.ts'

type Holds = CheckResult['holds']
type Evidence = FindingPlace['evidence']

/** What is told of the first course of a template, and for which as-of dates. */
interface FirstTold {
  holds: Holds
  /** Rule and place. */
  where: ReadonlySet<string>
  /** Rule, place, and what was seen there. */
  what: ReadonlySet<string>
}

/** Of something that is told of a course: whether it is the template’s own. */
export interface OfTemplate {
  isOwn: (rule: AnyRule, place: Place, evidence: Evidence) => boolean
  /** The as-of dates for which what was said of it so far stays true. */
  holds: () => Holds
}

/**
 * Facts of whoever is taught by anybody, in the same term, of the same length and kind, in any department that the template does not
 * tell from others: what is told with them is told in every course.
 */
const anybodysCourse = (
  { owner: _owner, units: _units, room, ...facts }: Facts,
  template: Template,
): Facts => ({
  ...facts,
  department: departmentsTold(template).has(facts.department) ? facts.department : 'Any',
  code: 'XYZ 100',
  title: 'Any course',
  classSections: ['01'],
  instructors: [{ name: 'Any Instructor', email: 'instructor@example.org' }],
  assistants: [],
  moduleOwners: {},
  topics: {},
  answers: {},
  ...(room === undefined ? {} : { room: 'Any room' }),
})

const whereOf = (rule: string, { part, week }: Place): string => `${rule}|${part}|${week}`
/** Addresses are each platform’s own: the same image and the same page have another one in every course. */
const address = /\S*\/\S*/g
const whatOf = (rule: string, place: Place, evidence: Evidence): string =>
  `${whereOf(rule, place)}|${evidence.map(({ text }) => text.replace(address, '/')).join('|')}`

const nothing: FirstTold = { holds: { from: null, until: null }, where: new Set(), what: new Set() }

const isWithin = (day: string, { from, until }: Holds): boolean =>
  (from === null || from <= day) && (until === null || day < until)

const later = (a: string | null, b: string | null): string | null =>
  a === null || (b !== null && b > a) ? b : a
const earlier = (a: string | null, b: string | null): string | null =>
  a === null || (b !== null && b < a) ? b : a

/** The as-of dates that two have in common. */
export const holdTogether = (one: Holds, other: Holds): Holds => ({
  from: later(one.from, other.from),
  until: earlier(one.until, other.until),
})

/** First courses that are remembered, each with what is told of it from day to day. */
const mostFirstCourses = 300
const known = new Map<string, FirstTold[]>()
const digestOf = rememberOf((document: Template | Facts['term']) =>
  shortHash(JSON.stringify(document)),
)

interface Question {
  template: Template
  facts: Facts
  asOf: string
}
type Judge = (first: Question & { course: Course }) => Result<CheckResult>

const workOut = (template: Template, facts: Facts, asOf: string, judge: Judge): FirstTold => {
  const course = firstCourse(template, facts, asOf)
  const result = course.ok ? judge({ template, facts, course: course.value, asOf }) : course
  if (!result.ok) return nothing
  const told = result.value.findings.flatMap(({ rule, places }) =>
    ruleById(rule)?.onlyInCourse
      ? []
      : places.map(({ place, evidence }) => ({
          where: whereOf(rule, place),
          what: whatOf(rule, place, evidence),
        })),
  )
  return {
    holds: result.value.holds,
    where: new Set(told.map(({ where }) => where)),
    what: new Set(told.map(({ what }) => what)),
  }
}

const firstTold = (template: Template, facts: Facts, asOf: string, judge: Judge): FirstTold => {
  const said = saidFacts(facts, template)
  const { term, nextTerm, ...rest } = said
  const key = [
    digestOf(template),
    digestOf(term),
    nextTerm ? digestOf(nextTerm) : '',
    JSON.stringify(rest),
  ].join(' ')
  const before = known.get(key)
  const found = before?.find(({ holds }) => isWithin(asOf, holds))
  if (found) return found
  const told = workOut(template, said, asOf, judge)
  if (before) before.push(told)
  else {
    if (known.size >= mostFirstCourses) known.clear()
    known.set(key, [told])
  }
  return told
}

/**
 * Tells what the template is to blame for from what the course is: the first course of the template, deployed as of the same day and
 * filled in perfectly, is told the same of the same place. It is asked of a course of anybody first, which serves all courses of a
 * term and kind; of one with these very facts, to see whether it is the same that is seen, only where that one is told something.
 * @param judge checks a course without asking this
 */
export const ofTemplate = ({ template, facts, asOf }: Question, judge: Judge): OfTemplate => {
  let holds: Holds = nothing.holds
  const asked = (facts: Facts): (() => FirstTold) => {
    let told: FirstTold | null = null
    return () => {
      if (!told) {
        told = firstTold(template, facts, asOf, judge)
        holds = holdTogether(holds, told.holds)
      }
      return told
    }
  }
  const ofAnybody = asked(anybodysCourse(facts, template))
  const ofThis = asked(facts)
  return {
    isOwn: (rule, place, evidence) =>
      !rule.onlyInCourse &&
      ofAnybody().where.has(whereOf(rule.id, place)) &&
      ofThis().what.has(whatOf(rule.id, place, evidence)),
    holds: () => holds,
  }
}
