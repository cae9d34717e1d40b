/** What a course is named by wherever one stands among others. */
export interface NamedCourse {
  platformId: string
  code: string
  title: string
  classSections: readonly string[]
}

const lookOf = ({ code, title, classSections }: NamedCourse): string =>
  JSON.stringify([code, title, classSections])

/**
 * What tells courses of one title apart, by their number on the platform: the class sections, and that number too where two
 * still look alike.
 */
export const tellApart = (courses: readonly NamedCourse[]): Map<string, string> => {
  const alike = new Map<string, number>()
  for (const course of new Map(courses.map((course) => [course.platformId, course])).values())
    alike.set(lookOf(course), (alike.get(lookOf(course)) ?? 0) + 1)
  return new Map(
    courses.map((course) => [
      course.platformId,
      [
        ...course.classSections,
        ...((alike.get(lookOf(course)) ?? 0) > 1 || course.classSections.length === 0
          ? [course.platformId]
          : []),
      ].join(', '),
    ]),
  )
}

/** Whether a course, among these, is told from another only by its number on the platform. */
export const alikeAmong = (
  courses: readonly NamedCourse[],
): ((course: Pick<NamedCourse, 'platformId'>) => boolean) => {
  const apart = tellApart(courses)
  return ({ platformId }) => apart.get(platformId)?.endsWith(platformId) === true
}
