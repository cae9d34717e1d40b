import { bandOf, type Banding, type CourseSummary } from '@wickerframe/contract'

/** The name of whoever must act in a course; empty: nobody teaches it. */
export const ownerName = ({ instructors, owner }: CourseSummary): string =>
  instructors.find(({ email }) => email === owner)?.name ?? ''

/** The band of the weave that a course stands in. */
export const bandOfCourse = (summary: CourseSummary, by: Banding): string =>
  bandOf[by]({
    department: summary.department,
    weeks: summary.weeks,
    template: summary.template?.title ?? '',
    owner: ownerName(summary),
  })
