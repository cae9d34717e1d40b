import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { CourseSummary } from '@wickerframe/contract'
import { useToday } from '../../api/queries.ts'
import { Page, plural, Problem, Sentence, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { MendFirst } from '../conformance/MendFirst.tsx'

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="border-t border-line pt-3">
    <h2 className="mb-2 text-[18px]">{title}</h2>
    {children}
  </section>
)
const CourseLink = ({
  course,
  apart,
}: {
  course: CourseSummary
  apart: ReadonlyMap<string, string>
}) => (
  <Link
    className="font-semibold underline decoration-line-strong underline-offset-2"
    to={`/courses/${course.id}`}
  >
    {course.code} {course.title}, {apart.get(course.platformId)}
  </Link>
)
const who = ({ instructors, owner }: CourseSummary): string =>
  instructors.find(({ email }) => email === owner)?.name ?? 'no instructor'

export const TodayScreen = () => {
  const today = useToday()
  if (today.isPending)
    return (
      <Page title="Today">
        <Waiting what="the term" />
      </Page>
    )
  if (!today.data)
    return (
      <Page title="Today">
        <Problem error={today.error} />
      </Page>
    )
  const view = today.data
  const apart = tellApart([
    ...[...view.notReady, ...view.comingDue].map(({ course }) => course),
    ...view.notBegun,
    ...view.noTemplate,
  ])
  return (
    <Page
      title={
        view.notReady.length > 0
          ? `${plural(view.notReady.length, 'course')} need someone today`
          : 'Nothing needs you today'
      }
      above={`${view.term.title}${view.week === null ? '' : `, week ${view.week} of ${view.weeks}`} · as of ${view.checkedAsOf ?? 'no check yet'}`}
    >
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_22rem]">
        <div className="flex flex-col gap-6">
          <Part title="Not ready">
            {view.notReady.length === 0 && (
              <p className="text-ink-2">Every course that was checked is ready.</p>
            )}
            <ul className="divide-y divide-line">
              {view.notReady.slice(0, 12).map(({ course, first }) => (
                <li key={course.id} className="grid grid-cols-[18rem_1fr] gap-4 py-1.5">
                  <div>
                    <CourseLink course={course} apart={apart} />
                    <p className="text-ink-3">
                      {who(course)} · {plural(course.check?.counts.openMusts ?? 0, 'open must')}
                    </p>
                  </div>
                  <p className="line-clamp-2">
                    <Sentence text={first} strength="must" />
                  </p>
                </li>
              ))}
            </ul>
            {view.notReady.length > 12 && (
              <p className="mt-1">
                <Link className="text-tide underline" to="/conformance">
                  {view.notReady.length - 12} more in the weave
                </Link>
              </p>
            )}
          </Part>
          <Part title="Coming due in the next seven days">
            {view.comingDue.length === 0 && <p className="text-ink-2">Nothing new falls due.</p>}
            <ul className="columns-2 gap-8">
              {view.comingDue.slice(0, 10).map(({ course, count, first }) => (
                <li key={course.id} className="py-0.5">
                  <CourseLink course={course} apart={apart} />{' '}
                  <span className="text-ink-2">
                    {plural(count, 'requirement')} by {first}
                  </span>
                </li>
              ))}
            </ul>
            {view.comingDue.length > 10 && (
              <p className="text-ink-2">and {view.comingDue.length - 10} more courses</p>
            )}
          </Part>
        </div>
        <div className="flex flex-col gap-6">
          <Part title="Mend first">
            <MendFirst actions={view.mendFirst} />
          </Part>
          <Part title="Not begun">
            {view.notBegun.length === 0 ? (
              <p className="text-ink-2">Everyone has begun.</p>
            ) : (
              <ul>
                {view.notBegun.map((course) => (
                  <li key={course.id}>
                    <CourseLink course={course} apart={apart} />{' '}
                    <span className="text-ink-2">{who(course)}</span>
                  </li>
                ))}
              </ul>
            )}
          </Part>
          <Part title="Under no template">
            {view.noTemplate.length === 0 ? (
              <p className="text-ink-2">Every teaching course has one.</p>
            ) : (
              <ul>
                {view.noTemplate.map((course) => (
                  <li key={course.id}>
                    <CourseLink course={course} apart={apart} />{' '}
                    <span className="text-ink-2">
                      {course.state === 'shell' ? 'a shell' : course.state.replace('-', ' ')}
                    </span>
                  </li>
                ))}
              </ul>
            )}
            {view.noTemplate.length > 0 && (
              <p className="mt-1">
                <Link
                  className="text-tide underline"
                  to={`/rollouts/new?courses=${view.noTemplate.map((course) => course.id).join('.')}`}
                >
                  Plan a rollout to {view.noTemplate.length === 1 ? 'it' : 'them'}
                </Link>
              </p>
            )}
          </Part>
          {view.duplicates.length > 0 && (
            <Part title="Two courses for one class section">
              <ul>
                {view.duplicates.slice(0, 6).map((duplicate) => (
                  <li key={duplicate.classSection}>
                    {duplicate.classSection}:{' '}
                    {duplicate.courses.map((course) => course.platformId).join(', ')}
                  </li>
                ))}
              </ul>
            </Part>
          )}
          {view.failedRollouts.length > 0 && (
            <Part title="Rollouts with failures">
              <ul>
                {view.failedRollouts.map((run) => (
                  <li key={run.id}>
                    <Link className="underline" to={`/rollouts/${run.id}`}>
                      {run.title}
                    </Link>
                    : {plural(run.counts.failed, 'course')} failed
                  </li>
                ))}
              </ul>
            </Part>
          )}
        </div>
      </div>
    </Page>
  )
}
