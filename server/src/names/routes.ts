import type { NameInUse, nameRoutes, ProposedRename } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import {
  everyCourseItem,
  everyExpected,
  everyModule,
  expandCourse,
  homePageKey,
  knownRepetitions,
  courseValues,
  instructionalWeeks,
  type Course,
  type Template,
} from '@wickerframe/core'
import { listPairs } from '../checks/checks.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { listSnapshots } from '../snapshots/snapshots.ts'
import { findVersionById } from '../templates/templates.ts'
import { askedRun } from '../runs/askedRun.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

/** Read at once; more are left out, and said to be. */
const mostCourses = 400
/** So many at a time, so that others are served between them. */
const coursesAtOnce = 10

const aboutCourse = ({ summary, facts }: StoredCourse) => ({
  course: summary.id,
  code: summary.code,
  title: summary.title,
  classSections: facts.classSections,
  near:
    instructionalWeeks({ term: facts.term, nextTerm: facts.nextTerm, session: facts.session })[0]
      ?.first ?? facts.term.firstDay,
})

interface ReadCourse {
  stored: StoredCourse
  course: Course

  /** Which found id stands for which part instance. */
  foundFor: ReadonlyMap<string, string> | undefined
}

/** The names that a part bears in a course, with what its fields should say there; none where the template does not fit it. */
const namesIn = (
  { stored, course, foundFor }: ReadCourse,
  template: Template,
  part: string,
): NameInUse[] => {
  const about = aboutCourse(stored)
  if (part === 'course')
    return [
      {
        ...about,
        what: 'course',
        id: course.id,
        name: course.name,
        values: courseValues(stored.facts),
      },
    ]
  const expansion = expandCourse({
    template,
    facts: stored.facts,
    mintFrom: course.id,
    repetitions: knownRepetitions(template, course),
  })
  if (!expansion.ok) return []
  const found = new Map<string, { what: ProposedRename['what']; name: string }>([
    ...everyModule(course.modules).map(
      (module) => [module.id, { what: 'module', name: module.name }] as const,
    ),
    ...everyCourseItem(course).map(
      ({ item }) => [item.id, { what: 'item', name: item.name }] as const,
    ),
  ])
  const wanted =
    part === homePageKey
      ? [expansion.value.home]
      : everyExpected(expansion.value.parts).filter(({ key }) => key === part)
  return wanted.flatMap(({ instance, values }) => {
    const id = foundFor?.get(instance)
    const there = id === undefined ? undefined : found.get(id)
    return id !== undefined && there ? [{ ...about, ...there, id, values }] : []
  })
}

export const nameHandlers: HandlersOf<typeof nameRoutes> = {
  /**
   * The names that a part of a template bears in every course judged by it, with what its fields should say there. `part`
   * may be `course`: the courses' own names.
   */
  namesInUse: async ({ pool, person, today, query }) => {
    const { template, part } = query
    const all = (await listCourses(pool, person, today)).filter(
      (stored) => stored.summary.template?.key === template,
    )
    const courses = all.slice(0, mostCourses)
    const versions = new Map<string, Template>()
    const versionOf = async ({ templateId, version }: StoredCourse): Promise<Template | null> => {
      if (templateId === null || version === null) return null
      const key = `${templateId}/${version}`
      const document =
        versions.get(key) ?? (await findVersionById(pool, templateId, version))?.document
      if (document) versions.set(key, document)
      return document ?? null
    }
    const names = new Map<StoredCourse, NameInUse[]>()
    let begun = 0
    const lane = async (): Promise<void> => {
      while (begun < courses.length) {
        const some = courses.slice(begun, (begun += coursesAtOnce))
        const ids = some.map((stored) => stored.summary.id)
        const snapshots = await listSnapshots(pool, ids)
        const pairs = await listPairs(pool, ids, today)
        for (const stored of some) {
          const course = snapshots.get(stored.summary.id)
          const document = course && (await versionOf(stored))
          const foundFor = pairs.get(stored.summary.id)
          if (document) names.set(stored, namesIn({ stored, course, foundFor }, document, part))
        }
      }
    }
    // While one is worked out, the next are read.
    await Promise.all([lane(), lane()])
    return {
      names: courses.flatMap((stored) => names.get(stored) ?? []),
      leftOut: all.length - courses.length,
    }
  },
  /** Plans new names; they are given when somebody approves the plan. */
  planRenames: async ({ pool, person, today, body }) => {
    const { names } = body
    const visible = new Set(
      (await listCourses(pool, person, today)).map((stored) => stored.summary.id),
    )
    const byCourse = new Map<number, ProposedRename[]>()
    for (const { course, ...rename } of names) {
      if (!visible.has(course)) throw notFound('course among those named')
      if (rename.was === rename.name) continue
      byCourse.set(course, [...(byCourse.get(course) ?? []), rename])
    }
    if (byCourse.size === 0)
      throw new HttpProblem(409, 'nothing-to-rename', 'every name is what it should be already')
    const count = [...byCourse.values()].reduce((sum, { length }) => sum + length, 0)
    const run = await askedRun(
      { pool },
      {
        kind: 'renames',
        state: 'planned',
        title: `${count} ${count === 1 ? 'name' : 'names'} in ${byCourse.size} ${byCourse.size === 1 ? 'course' : 'courses'}`,
        by: person.email,
        asOf: null,
        templateId: null,
        version: null,
        tasks: [...byCourse].map(([courseId, proposal]) => ({ courseId, proposal })),
      },
    )
    return { run }
  },
}
