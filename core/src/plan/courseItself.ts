import type { Change } from '../course/index.ts'
import { gathered } from '../expand/index.ts'
import { navigationWords } from '../template/index.ts'
import type { FieldBase } from './base.ts'
import { mergeCaseOf } from './mergeCase.ts'
import { mergeFields } from './mergeFields.ts'
import {
  ledThereBefore,
  ledToCreated,
  navigationByInstance,
  navigationOnPlatform,
  type Navigation,
} from './navigation.ts'
import type { NextBase } from './nextBase.ts'
import type { PlanContext } from './planContext.ts'
import { presentField, wantedCourseFields } from './wantedFields.ts'

type CourseBase = Pick<NextBase, 'course' | 'freshCourseFields'>

export interface OfCourse {
  courseBase: CourseBase
  /** Changes that speak of what the others make. */
  lastChanges: Change[]
}

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
  parts,
  partOf,
  found,
  created,
  placed,
  standing,
  refOf,
  changes,
  steps,
  decide,
}: PlanContext): OfCourse => {
  if (!chosenKey('course'))
    return { courseBase: { course: base.course, freshCourseFields: [] }, lastChanges: [] }
  const instanceOf = new Map(parts.map(({ instance }) => [placed(instance), instance]))
  const deployed = (base.course['navigation']?.echo ?? []) as Navigation
  for (const [id, instance] of ledThereBefore(
    course.navigation,
    deployed,
    (id) => !found.has(id),
    (instance) => created.has(instance),
  ))
    instanceOf.set(id, instance)
  const stands = {
    ...course,
    navigation: navigationByInstance(course.navigation, (id) => instanceOf.get(id)),
  }
  const wanted = wantedCourseFields(expected)
  const intoShell = first && !adopts
  // A shell's own name and settings are nobody's work: they count as untouched.
  const untouched = () =>
    Object.fromEntries(
      Object.keys(wanted).map((field) => [
        field,
        { sent: 'before deployment', echo: presentField(stands, field) as FieldBase['echo'] },
      ]),
    )
  const { write, told, fields, freshFields } = mergeFields({
    wanted,
    of: stands,
    before: intoShell ? untouched() : first ? null : base.course,
    name: null,
    hasWork: false,
    decide: (field) => decide('course', field),
  })
  const { navigation, ...set } = gathered(stands, write)
  if (Object.keys(set).length > 0) changes.push({ change: 'set-course', ...set })
  const written =
    navigation === undefined
      ? ledToCreated(course.navigation, (id) => {
          const instance = instanceOf.get(id)
          return instance !== undefined && created.has(instance) ? refOf(instance) : null
        })
      : navigationOnPlatform(navigation as Navigation, (instance) =>
          standing(instance) !== undefined || created.has(instance) ? refOf(instance) : null,
        )
  const lastChanges: Change[] = written ? [{ change: 'set-navigation', navigation: written }] : []
  const nameOfTarget = (key: string): string | null => {
    const there = found.get(key)
    const name = partOf.get(key)?.name ?? there?.item?.name ?? there?.module?.name
    return name === undefined ? null : `“${name}”`
  }
  const inWords = (value: unknown): unknown =>
    Array.isArray(value) ? navigationWords(value as Navigation, nameOfTarget) : value
  if (told.length > 0)
    steps.push({
      ...courseStep,
      does: told.some(({ does }) => does === 'conflict')
        ? 'conflict'
        : told.some(({ does }) => does === 'change')
          ? 'set'
          : 'keep',
      name: expected.name,
      fields: told.map((step) =>
        step.field === 'navigation'
          ? {
              ...step,
              base: inWords(step.base),
              present: inWords(step.present),
              wanted: inWords(step.wanted),
              result: inWords(step.result),
            }
          : step,
      ),
      reason: intoShell
        ? `named ${expected.name}, label ${expected.label}, in the time of ${expected.facts.term.timeZone}${expected.window ? ', open for as long as the template says' : ''}`
        : 'the course itself',
    })
  return { courseBase: { course: fields, freshCourseFields: freshFields }, lastChanges }
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
