import { gathered } from '../expand/index.ts'
import type { FieldBase } from './base.ts'
import { mergeCaseOf } from './mergeCase.ts'
import { mergeFields } from './mergeFields.ts'
import type { NextBase } from './nextBase.ts'
import type { PlanContext } from './planContext.ts'
import { presentField, wantedCourseFields } from './wantedFields.ts'

type CourseBase = Pick<NextBase, 'course' | 'freshCourseFields'>

const courseStep = {
  instance: 'course',
  part: 'course',
  kind: 'course',
  into: null,
  opensAt: null,
  dueAt: null,
} as const

/** Merges the fields of the course itself: name, settings, grade scheme, navigation. */
export const mergeCourseFields = ({
  expected,
  course,
  base,
  first,
  adopts,
  chosenKey,
  changes,
  steps,
  decide,
}: PlanContext): CourseBase => {
  if (!chosenKey('course')) return { course: base.course, freshCourseFields: [] }
  const wanted = wantedCourseFields(expected)
  const intoShell = first && !adopts
  // A shell's own name and settings are nobody's work: they count as untouched.
  const untouched = () =>
    Object.fromEntries(
      Object.keys(wanted).map((field) => [
        field,
        { sent: 'before deployment', echo: presentField(course, field) as FieldBase['echo'] },
      ]),
    )
  const { write, told, fields, freshFields } = mergeFields({
    wanted,
    of: course,
    before: intoShell ? untouched() : first ? null : base.course,
    name: null,
    hasWork: false,
    decide: (field) => decide('course', field),
  })
  const { navigation, ...set } = gathered(course, write)
  if (Object.keys(set).length > 0) changes.push({ change: 'set-course', ...set })
  if (navigation !== undefined)
    changes.push({
      change: 'set-navigation',
      navigation: navigation as { label: string; hidden: boolean }[],
    })
  if (told.length > 0)
    steps.push({
      ...courseStep,
      does: told.some(({ does }) => does === 'conflict')
        ? 'conflict'
        : told.some(({ does }) => does === 'change')
          ? 'set'
          : 'keep',
      name: expected.name,
      fields: told,
      reason: intoShell
        ? `named ${expected.name}, label ${expected.label}, in the time of ${expected.facts.term.timeZone}${expected.window ? ', open for as long as the template says' : ''}`
        : 'the course itself',
    })
  return { course: fields, freshCourseFields: freshFields }
}

/** Merges which page is shown first. @returns what the base says of it then, or nothing new */
export const mergeHome = ({
  expected,
  course,
  base,
  first,
  adopts,
  found,
  created,
  standing,
  refOf,
  chosenPart,
  changes,
  steps,
  decide,
}: PlanContext): Record<string, FieldBase> => {
  const { home } = expected
  const isNew = created.has(home.instance)
  if (!isNew && (standing(home.instance) === undefined || !chosenPart(home))) return {}
  const known = base.course['home'] !== undefined
  const there = refOf(home.instance)
  const settled = { home: { sent: home.instance, echo: home.instance } }
  const fate = (): ReturnType<typeof mergeCaseOf> => {
    if (first && !adopts) return 'change'
    if (isNew) return !known || course.homePage === null ? 'change' : 'keep'
    if (known) return 'same'
    return course.homePage === there ? 'agree' : 'conflict'
  }
  const what = fate()
  const decided = what === 'conflict' ? decide('course', 'home') : null
  if (what === 'change' || decided === 'take') changes.push({ change: 'set-home', item: there })
  if (what === 'conflict') {
    const present =
      course.homePage === null ? null : (found.get(course.homePage)?.item?.name ?? null)
    const reason = 'another page is shown first'
    steps.push({
      ...courseStep,
      does: 'conflict',
      name: 'Home page',
      reason,
      fields: [
        {
          field: 'home',
          does: 'conflict',
          base: null,
          present,
          wanted: home.name,
          result: decided === 'take' ? home.name : present,
          decided: decided === 'both' ? null : decided,
          reason,
        },
      ],
    })
  }
  return what === 'change' || what === 'agree' || decided === 'take' || decided === 'keep'
    ? settled
    : {}
}
