import { Link, useParams } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { useCourse } from '../../api/queries.ts'
import { Button, Page, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { AsOf } from './AsOf.tsx'
import { CourseTabs } from './CourseTabs.tsx'
import { Merges } from './IntoAnother.tsx'
import { aboutCourse } from './standingWords.ts'
import { useCourseCheck } from './useCourseCheck.ts'

/** One course: how it stands as of a day, and everything that can be done for it. */
export const CourseScreen = ({ me: person }: { me: Me }) => {
  const { id = '' } = useParams()
  const { search, set } = useAddress()
  const asOf = search.get('asOf') ?? person.today
  const query = useCourse(id, asOf)
  const check = useCourseCheck(id, asOf)
  const course = query.data
  if (!course)
    return (
      <Page title="Course">
        {query.isPending ? <Waiting what="the course" /> : <Problem error={query.error} />}
      </Page>
    )
  // What somebody may do here, they may by the roles that are about this course.
  const me = { ...person, roles: course.roles }
  return (
    <Page
      title={`${course.code} ${course.title}`}
      above={
        <>
          <Link className="underline" to="/courses">
            Courses
          </Link>{' '}
          ›{' '}
          <Link className="underline" to={`/courses?department=${course.department}`}>
            {course.department}
          </Link>
        </>
      }
      beside={
        <>
          <AsOf
            asOf={asOf}
            today={me.today}
            facts={course.facts}
            onChange={(date) => set({ asOf: date })}
          />
          {may(me, 'look after course') && (
            <Button
              shape="main"
              disabled={check.isRunning || check.begin.isPending}
              onClick={() => check.begin.mutate()}
            >
              {check.isRunning ? 'Reading …' : 'Read again'}
            </Button>
          )}
        </>
      }
    >
      <p className="text-ink-2">{aboutCourse(course)}</p>
      <Merges course={course} may={may(me, 'keep courses')} />
      <Problem error={check.begin.error} />
      {check.waits !== '' && (
        <p role="status" className="mt-2 border-l-4 border-straw-strand bg-straw-soft px-3 py-1">
          {check.waits}
        </p>
      )}
      {check.failure !== null && (
        <p role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
          {check.failure}
        </p>
      )}
      <CourseTabs course={course} me={me} asOf={asOf} onBegun={check.follow} />
    </Page>
  )
}
