import {
  everyCourseItem,
  everyModule,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'
import type { Base, BaseEntry, FieldBase, QuestionBase } from './base.ts'
import type { Bodies } from './bodies.ts'
import { navigationByInstance } from './navigation.ts'
import type { NextBase, NextQuestion } from './nextBase.ts'
import { presentField } from './wantedFields.ts'

/** Questions as the platform gave them back; one that it did not is not known of any more. */
const questionsAfter = (
  questions: readonly NextQuestion[],
  ids: Readonly<Record<string, string>>,
  item: CourseItem | undefined,
): QuestionBase[] =>
  questions.flatMap(({ clientId, fresh, ...known }) => {
    const id = clientId === null ? known.id : ids[clientId]
    if (id === undefined) return []
    if (!fresh) return [{ ...known, id }]
    const there = item?.questions?.find((question) => question.id === id)
    return there ? [{ ...known, id, echo: there.body }] : []
  })

/**
 * The base after a plan was carried out: what the platform gave back, beside what we sent.
 * @param ids the platform's id for each instance the plan created
 * @param course as it stands after the change set, from the platform's own transaction
 */
export const baseAfter = (
  next: NextBase,
  ids: Readonly<Record<string, string>>,
  course: Course,
  bodies: Bodies,
): Base => {
  const items = new Map<string, CourseItem>(
    everyCourseItem(course).map(({ item }) => [item.id, item]),
  )
  const modules = new Map<string, CourseModule>(
    everyModule(course.modules).map((module) => [module.id, module]),
  )
  const echoed = (
    of: Course | CourseModule | CourseItem,
    fields: Record<string, FieldBase>,
    fresh: readonly string[],
  ): Record<string, FieldBase> => {
    const again = new Set(fresh)
    return Object.fromEntries(
      Object.entries(fields).map(([field, value]) => [
        field,
        again.has(field)
          ? { sent: value.sent, echo: presentField(of, field) as FieldBase['echo'] }
          : value,
      ]),
    )
  }
  const parts = next.parts.flatMap(
    ({ freshFields, freshPage, blocks, questions, ...entry }): BaseEntry[] => {
      const platformId = entry.platformId ?? ids[entry.instance]
      if (platformId === undefined) return []
      const item = items.get(platformId)
      const of = item ?? modules.get(platformId)
      const pageId = item?.html === undefined || item.html === null ? null : bodies.idOf(item.html)
      return [
        {
          ...entry,
          platformId,
          fields: of ? echoed(of, entry.fields, freshFields) : entry.fields,
          blocks: blocks.map(({ fresh, ...block }) => (fresh ? { ...block, page: pageId } : block)),
          ...(questions && questions.length > 0
            ? { questions: questionsAfter(questions, ids, item) }
            : {}),
          page: freshPage ? pageId : entry.page,
        },
      ]
    },
  )
  const instanceOf = new Map(parts.map(({ platformId, instance }) => [platformId, instance]))
  return {
    schema: 'wickerframe.base/1',
    course: echoed(
      {
        ...course,
        navigation: navigationByInstance(course.navigation, (id) => instanceOf.get(id)),
      },
      next.course,
      next.freshCourseFields,
    ),
    parts,
    bodies: {},
  }
}
