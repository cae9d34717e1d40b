import { localDateOf } from '../calendar/index.ts'
import {
  everyCourseItem,
  everyModule,
  isShown,
  type Change,
  type Course,
  type CourseChild,
} from '../course/index.ts'
import type { ExpectedCourse } from '../expand/index.ts'
import type { Consequence } from './consequence.ts'
import type { PlanStep } from './plan.ts'

/** Consequences of a change set, told before anybody approves it. */
export const consequencesOf = (
  changes: readonly Change[],
  steps: readonly PlanStep[],
  course: Course,
  expected: ExpectedCourse,
): Consequence[] => {
  const names = new Map<string, CourseChild>([
    ...everyModule(course.modules).map((module) => [module.id, module] as const),
    ...everyCourseItem(course).map(({ item }) => [item.id, item] as const),
  ])
  const told: Consequence[] = []
  const tell = (code: Consequence['code'], found: readonly string[]) => {
    if (found.length > 0)
      told.push({ code, count: found.length, example: found[0] ?? '', all: found.slice(0, 50) })
  }
  const seen = (id: string): boolean => {
    const of = names.get(id)
    return course.published && of !== undefined && isShown(of)
  }
  const sets = changes.flatMap((change) =>
    change.change === 'set-item' || change.change === 'set-module' ? [change] : [],
  )
  tell(
    'new-names',
    sets.flatMap((change) =>
      change.fields.name !== undefined && seen(change.id)
        ? [`${names.get(change.id)?.name} → ${change.fields.name}`]
        : [],
    ),
  )
  tell(
    'new-dates',
    sets.flatMap((change) =>
      'dueAt' in change.fields && change.fields.dueAt !== undefined && seen(change.id)
        ? [names.get(change.id)?.name ?? '']
        : [],
    ),
  )
  tell(
    'student-work',
    steps.flatMap((step) =>
      step.because === 'student-work' ||
      step.fields.some((field) => field.because === 'student-work')
        ? [step.name]
        : [],
    ),
  )
  const lastDay = (expected.facts.nextTerm ?? expected.facts.term).lastDay
  tell(
    'past-last-day',
    changes.flatMap((change) => {
      if (change.change !== 'create-item' && change.change !== 'set-item') return []
      const { dueAt } = change.fields
      return dueAt && localDateOf(dueAt, expected.facts.term.timeZone) > lastDay
        ? [
            change.fields.name ??
              (change.change === 'set-item' ? (names.get(change.id)?.name ?? '') : ''),
          ]
        : []
    }),
  )
  tell(
    'dead-links',
    changes.flatMap((change) =>
      (change.change === 'create-item' || change.change === 'set-item') &&
      change.fields.html?.includes('href="#"')
        ? [
            change.fields.name ??
              (change.change === 'set-item' ? (names.get(change.id)?.name ?? '') : ''),
          ]
        : [],
    ),
  )
  return told
}
