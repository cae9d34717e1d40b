import { useQuery } from '@tanstack/react-query'
import { bandings } from '@wickerframe/contract/bands'
import type { CollegeHistory } from '@wickerframe/contract'
import type { ReadinessDay } from '@wickerframe/core'
import { call } from '../../../api/client.ts'
import { Choice, plural, Problem, Waiting } from '../../../controls/controls.tsx'
import { CourseName } from '../../../controls/CourseName.tsx'
import { alikeAmong } from '../../../controls/tellApart.ts'
import { ConformancePage } from '../ConformancePage.tsx'
import { useAddress } from '../../../shell/useAddress.ts'
import { DayBars } from '../DayBars.tsx'
import { ReadinessChart } from './ReadinessChart.tsx'

const wide = 1180
const narrow = 380

const median = (sorted: readonly number[]): number | null => {
  const middle = Math.floor(sorted.length / 2)
  const upper = sorted[middle]
  if (upper === undefined) return null
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? upper) + upper) / 2
}

const Days = ({ days }: { days: readonly ReadinessDay[] }) => (
  <details>
    <summary className="cursor-pointer text-tide underline">as a table</summary>
    <table className="mt-1 tabular-nums">
      <thead>
        <tr className="text-left text-ink-2">
          {['day', 'ready', 'as far as seen', 'not ready', 'open musts'].map((head) => (
            <th key={head} className="pr-6 font-normal">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {days.toReversed().map(({ day, ready, asFarAsSeen, notReady, openMusts }) => (
          <tr key={day} className="border-t border-line">
            <td className="pr-6">{day}</td>
            <td>{ready}</td>
            <td>{asFarAsSeen}</td>
            <td>{notReady}</td>
            <td>{openMusts}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </details>
)

/** What people edited since something was deployed, day by day, and who has not begun. */
const Edited = ({ view }: { view: CollegeHistory }) => {
  const sum = view.edits.reduce((total, { edits }) => total + edits, 0)
  const { count, lines } = view.notBegun
  const isTwin = alikeAmong(lines)
  return (
    <section className="mt-6">
      <h2 className="mb-1 text-[18px]">Edited since it was deployed</h2>
      <p className="text-ink-2">
        {sum === 0
          ? 'Nobody was seen to edit a course that something was deployed to.'
          : `${plural(sum, 'edit')}: modules, items and settings that people added, changed or removed, on the day on which it was seen.`}
      </p>
      {sum > 0 && (
        <DayBars
          days={view.edits.map(({ day, edits }) => ({ day, count: edits }))}
          says={`Edits by day: ${plural(sum, 'edit')} from ${view.from} until ${view.until}, at most ${Math.max(...view.edits.map(({ edits }) => edits))} on a day.`}
          width={wide}
          height={80}
        />
      )}
      {count > 0 && (
        <details>
          <summary className="cursor-pointer text-tide underline">
            {count} of {plural(view.deployed, 'deployed course')} not begun
          </summary>
          <p className="text-ink-2">
            Nothing that is asked of whoever teaches it is filled in there yet.
          </p>
          <ul className="mt-1 gap-x-6 sm:columns-2">
            {lines.map((course) => (
              <li key={course.id} className="break-inside-avoid border-t border-line py-1">
                <CourseName course={course} apart={isTwin(course)} />{' '}
                <span className="text-ink-2">{course.owner || 'nobody teaches it'}</span>
              </li>
            ))}
          </ul>
          {count > lines.length && (
            <p className="text-ink-2">and {plural(count - lines.length, 'more course')}</p>
          )}
        </details>
      )}
    </section>
  )
}

/** How the courses of the term stood day by day: all of them, and band by band. */
export const HistoryScreen = () => {
  const { search, set } = useAddress()
  const by = bandings.find((banding) => banding === search.get('by')) ?? 'department'
  const history = useQuery({
    queryKey: ['history', by],
    queryFn: () => call('collegeHistory', { query: { by } }),
  })
  const view = history.data
  const middle = median(view?.daysToReady ?? [])
  return (
    <ConformancePage title="Day by day" here="day by day">
      <Problem error={history.error} />
      {history.isPending && <Waiting what="how the courses stood" />}
      {view && view.bands.length === 0 && (
        <p className="py-6 text-ink-2">
          No course was checked yet. From the first check on, each day is kept here.
        </p>
      )}
      {view && view.bands.length > 0 && (
        <>
          <p className="text-ink-2">
            Plain: ready. Hatched: not ready. Kept since {view.from}; a day without a check is as
            the one before it.
          </p>
          <p className="mt-1">
            {middle === null
              ? 'No course is ready yet.'
              : middle === 0
                ? `At least half of the ${plural(view.daysToReady.length, 'ready course')} were so by their opening; the last took ${plural(view.daysToReady.at(-1) ?? 0, 'day')}.`
                : `From opening to ready: ${middle} ${middle === 1 ? 'day' : 'days'} in the middle of ${plural(view.daysToReady.length, 'course')}, ${view.daysToReady.at(-1)} at most.`}{' '}
            {view.neverReady > 0 && (
              <span className="text-rust">
                {plural(view.neverReady, 'course was', 'courses were')} never ready.
              </span>
            )}
          </p>
          <section className="mt-4">
            <h2 className="mb-1 text-[18px]">All courses</h2>
            <ReadinessChart title="All courses" days={view.college} width={wide} />
            <Days days={view.college} />
          </section>
          {view.deployed > 0 && <Edited view={view} />}
          <div
            className="mt-6 flex flex-wrap items-baseline gap-2"
            role="group"
            aria-label="Bands by"
          >
            <span className="text-ink-2">Bands by</span>
            {bandings.map((banding) => (
              <Choice
                key={banding}
                pressed={by === banding}
                onClick={() => set({ by: banding === 'department' ? null : banding })}
              >
                {banding}
              </Choice>
            ))}
          </div>
          <ul className="mt-3 grid gap-x-6 gap-y-4 sm:grid-cols-2 lg:grid-cols-3">
            {view.bands.map(({ title, courses, days, edits }) => (
              <li key={title}>
                <h3 className="mb-1">
                  {title}{' '}
                  <span className="font-sans text-[13px] font-normal text-ink-2">
                    {plural(courses, 'course')}
                    {edits > 0 && `, ${plural(edits, 'edit')}`}
                  </span>
                </h3>
                <ReadinessChart title={title} days={days} width={narrow} />
              </li>
            ))}
          </ul>
        </>
      )}
    </ConformancePage>
  )
}
