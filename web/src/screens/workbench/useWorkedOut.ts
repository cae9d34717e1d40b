import { useDeferredValue, useMemo } from 'react'
import type { CourseSummary } from '@wickerframe/contract'
import type { ExpectedCourse, Facts, Template } from '@wickerframe/core'
import { useCourses, useFacts } from '../../api/queries.ts'
import { expandedFor } from './outlineRows.ts'

/** Whether a template is meant for a course. */
const isFor = ({ appliesTo }: Template, course: CourseSummary): boolean => {
  const { weeks, modalities, departments } = appliesTo
  return (
    (weeks.length === 0 || weeks.includes(course.weeks)) &&
    (modalities.length === 0 || modalities.includes(course.modality)) &&
    (departments.length === 0 || departments.includes(course.department))
  )
}

/** A draft worked out for one of the courses it is meant for. */
export interface WorkedOut {
  fitting: readonly CourseSummary[]
  /** Id of the course, or empty where none fits. */
  course: string
  facts: Facts | null
  /** null until the facts are there. */
  expected: ExpectedCourse | null
}

/** @param chosen id of a course; null: the first that fits */
export const useWorkedOut = (draft: Template | null, chosen: string | null): WorkedOut => {
  const courses = useCourses()
  const fitting = useMemo(
    () => (courses.data ?? []).filter((course) => !draft || isFor(draft, course)),
    [courses.data, draft],
  )
  const course = chosen ?? (draft ? String(fitting[0]?.id ?? '') : '')
  const facts = useFacts(course)
  // Working the outline out for a course may lag a key behind; typing never waits for it.
  const settled = useDeferredValue(draft)
  const expected = useMemo(
    () => (settled && facts.data ? expandedFor(settled, facts.data) : null),
    [settled, facts.data],
  )
  return { fitting, course, facts: facts.data ?? null, expected }
}
