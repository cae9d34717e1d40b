import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { CourseLine, Me, TodayView } from '@wickerframe/contract'
import { useFreshChecks, useToday } from '../../api/queries.ts'
import { Page, plural, Problem, Waiting as Reading } from '../../controls/controls.tsx'
import { CourseName, sectionWords } from '../../controls/CourseName.tsx'
import { MendFirst } from '../conformance/MendFirst.tsx'
import { dayInWords, NotReady } from './NotReady.tsx'
import { Waiting } from './Waiting.tsx'

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="border-t border-line pt-3">
    <h2 className="mb-2 text-[18px]">{title}</h2>
    {children}
  </section>
)

const More = ({
  of: { count, lines },
  children,
}: {
  of: { count: number; lines: readonly unknown[] }
  children: (more: number) => ReactNode
}) => (count > lines.length ? <p className="mt-1">{children(count - lines.length)}</p> : null)

const leads = 'text-tide underline underline-offset-2'

/** Courses that look the same by code, title and class sections. */
const alike = (view: TodayView): ReadonlySet<number> => {
  const looks = new Map<string, Set<number>>()
  for (const course of [
    ...view.notReady.lines,
    ...view.waiting.lines,
    ...view.comingDue.lines,
    ...view.notBegun.lines,
    ...view.noTemplate.lines,
  ]) {
    const look = `${course.code} ${course.title} ${sectionWords(course)}`
    looks.set(look, (looks.get(look) ?? new Set()).add(course.id))
  }
  return new Set([...looks.values()].flatMap((ids) => (ids.size > 1 ? [...ids] : [])))
}

/** What the term needs now: what is not ready, what waits for an answer, what comes due, and what to mend first. */
export const TodayScreen = ({ me }: { me: Me }) => {
  const today = useToday()
  useFreshChecks()
  if (today.isPending)
    return (
      <Page title="Today">
        <Reading what="the term" />
      </Page>
    )
  if (!today.data)
    return (
      <Page title="Today">
        <Problem error={today.error} />
      </Page>
    )
  const view = today.data
  const same = alike(view)
  const isApart = ({ id }: CourseLine): boolean => same.has(id)
  return (
    <Page
      title={
        view.notReady.count > 0
          ? `${plural(view.notReady.count, 'course needs', 'courses need')} someone today`
          : 'Nothing needs you today'
      }
      above={`${view.term.title}${view.week === null ? '' : `, week ${view.week} of ${view.weeks}`} · as of ${view.checkedAsOf ?? 'no check yet'}`}
    >
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
        <div className="flex flex-col gap-6">
          {view.waiting.count + view.wideWaiversEnding > 0 && (
            <Part title="Waiting for you">
              <ul className="divide-y divide-line">
                {view.waiting.lines.map((line, i) => (
                  <Waiting key={i} line={line} apart={isApart(line)} />
                ))}
              </ul>
              <More of={view.waiting}>{(more) => `and ${more} more`}</More>
              {view.wideWaiversEnding > 0 && (
                <p>
                  <Link
                    className="text-tide underline underline-offset-2"
                    to="/conformance/waivers"
                  >
                    {plural(view.wideWaiversEnding, 'waiver')} for many courses{' '}
                    {view.wideWaiversEnding === 1 ? 'ends' : 'end'} within a fortnight
                  </Link>
                </p>
              )}
            </Part>
          )}
          <Part title="Not ready">
            {view.notReady.count === 0 && (
              <p className="text-ink-2">Every course that was checked is ready.</p>
            )}
            <ul className="divide-y divide-line">
              {view.notReady.lines.map((line) => (
                <NotReady key={line.id} line={line} apart={isApart(line)} />
              ))}
            </ul>
            <More of={view.notReady}>
              {(more) => (
                <Link className={leads} to="/conformance?shown=open">
                  {more} more in the weave
                </Link>
              )}
            </More>
          </Part>
          <Part title="Coming due in the next seven days">
            {view.comingDue.count === 0 && <p className="text-ink-2">Nothing new falls due.</p>}
            <ul className="gap-8 lg:columns-2">
              {view.comingDue.lines.map((line) => (
                <li key={line.id} className="break-inside-avoid py-0.5">
                  <CourseName course={line} apart={isApart(line)} />
                  {', '}
                  <Link className={leads} to={`/courses/${line.id}?asOf=${line.on}`}>
                    {plural(line.musts, 'must')} by {dayInWords(line.on)}
                  </Link>
                </li>
              ))}
            </ul>
            <More of={view.comingDue}>{(more) => `and ${plural(more, 'more course')}`}</More>
          </Part>
        </div>
        <div className="flex flex-col gap-6">
          <Part title="Mend first">
            <MendFirst actions={view.mendFirst} me={me} />
          </Part>
          <Part title="Not begun">
            {view.notBegun.count === 0 ? (
              <p className="text-ink-2">Everyone has begun.</p>
            ) : (
              <ul>
                {view.notBegun.lines.map((line) => (
                  <li key={line.id}>
                    <CourseName course={line} apart={isApart(line)} />{' '}
                    <span className="text-ink-2">{line.owner || 'nobody teaches it'}</span>
                  </li>
                ))}
              </ul>
            )}
            <More of={view.notBegun}>{(more) => `and ${more} more`}</More>
          </Part>
          <Part title="Under no template">
            {view.noTemplate.count === 0 ? (
              <p className="text-ink-2">Every teaching course has one.</p>
            ) : (
              <ul>
                {view.noTemplate.lines.map((line) => (
                  <li key={line.id}>
                    <CourseName course={line} apart={isApart(line)} />{' '}
                    <span className="text-ink-2">
                      {line.state === 'shell' ? 'a shell' : line.state.replace('-', ' ')}
                    </span>
                  </li>
                ))}
              </ul>
            )}
            {view.noTemplate.count > 0 && (
              <p className="mt-1">
                <Link
                  className={leads}
                  to={`/rollouts/new?courses=${view.noTemplate.all.join('.')}`}
                >
                  Plan a rollout to {view.noTemplate.count === 1 ? 'it' : 'them'}
                </Link>
              </p>
            )}
          </Part>
          {view.duplicates.count > 0 && (
            <Part title="Two courses for one class section">
              <ul>
                {view.duplicates.lines.map(({ classSection, courses }) => (
                  <li key={classSection}>
                    {classSection}:{' '}
                    {courses.map(({ id, platformId }, i) => (
                      <span key={id}>
                        {i > 0 && ', '}
                        <Link className={leads} to={`/courses/${id}?show=history`}>
                          {platformId}
                        </Link>
                      </span>
                    ))}
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
