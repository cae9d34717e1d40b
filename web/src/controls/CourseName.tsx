import { Link } from 'react-router'
import type { NamedCourse } from '@wickerframe/contract'

/** `class sections 01, 02`; a course without one is told by its number on the platform. */
export const sectionWords = ({
  classSections,
  platformId,
}: Pick<NamedCourse, 'classSections' | 'platformId'>): string =>
  classSections.length === 0
    ? platformId
    : `class ${classSections.length === 1 ? 'section' : 'sections'} ${classSections.join(', ')}`

/** A course by its code and title, leading to it. */
export const CourseLink = ({
  course: { id, code, title },
  to = '',
}: {
  course: NamedCourse
  /** What follows its address, such as `?show=pairing`. */
  to?: string
}) => (
  <Link
    className="font-semibold underline decoration-line-strong underline-offset-2"
    to={`/courses/${id}${to}`}
  >
    {code} {title}
  </Link>
)

/** The class sections of a course; its number on the platform stands beside them, where another course looks the same. */
export const Sections = ({ course, apart }: { course: NamedCourse; apart: boolean }) => (
  <>
    {sectionWords(course)}
    {apart && course.classSections.length > 0 && `, ${course.platformId}`}
  </>
)

/** A course by its code, title and class sections, leading to it. */
export const CourseName = ({
  course,
  to = '',
  apart,
}: {
  course: NamedCourse
  to?: string
  apart: boolean
}) => (
  <>
    <CourseLink course={course} to={to} />{' '}
    <span className="text-ink-2">
      <Sections course={course} apart={apart} />
    </span>
  </>
)
