import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { formatDate } from '@wickerframe/core'
import type { Ahead, Me } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem, Waiting } from '../../../controls/controls.tsx'
import { ConformancePage } from '../ConformancePage.tsx'
import { CourseName } from '../../../controls/CourseName.tsx'
import { alikeAmong } from '../../../controls/tellApart.ts'
import { useAddress } from '../../../shell/useAddress.ts'
import { DayBars } from '../DayBars.tsx'

const wide = 1180
const dayWords = 'EEE d MMM'

const saysOf = (days: Ahead['days']): string =>
  `Musts that fall due in the next ${days.length} days: ${days.reduce((total, { musts }) => total + musts, 0)}, at most ${Math.max(0, ...days.map(({ musts }) => musts))} on a day. The table below has each day.`

/** What falls due in the next four weeks over all courses: drawn by day, and each day with its courses and what it is. */
export const AheadScreen = ({ me }: { me: Me }) => {
  const { search, set } = useAddress()
  const ahead = useQuery({ queryKey: ['ahead', me.today], queryFn: () => call('ahead') })
  const view = ahead.data
  const due = view?.days.filter(({ musts }) => musts > 0) ?? []
  const asked = search.get('day')
  const day = due.find(({ on }) => on === asked) ?? due[0]
  return (
    <ConformancePage title="The next four weeks" here="the next four weeks">
      <Problem error={ahead.error} />
      {ahead.isPending && <Waiting what="what falls due" />}
      {view && (
        <p className="text-ink-2">
          {due.length === 0
            ? 'No must falls due in the next four weeks.'
            : `Musts by the day on which students need them, as the courses stand now: ${due.reduce((sum, { musts }) => sum + musts, 0)} in four weeks.`}
          {view.unchecked > 0 &&
            ` ${plural(view.unchecked, 'course is', 'courses are')} not checked as of today, and missing here.`}
        </p>
      )}
      {view && due.length > 0 && (
        <>
          <div className="mt-3 print:break-inside-avoid">
            <DayBars
              days={view.days.map(({ on, musts }) => ({ day: on, count: musts }))}
              says={saysOf(view.days)}
              chosen={day?.on ?? null}
              width={wide}
              onChoose={(on) => set({ day: on })}
            />
          </div>
          <div className="mt-4 grid gap-x-10 gap-y-4 lg:grid-cols-[21rem_minmax(0,1fr)]">
            <DayTable days={due} chosen={day?.on ?? null} onChoose={(on) => set({ day: on })} />
            {day && <OneDay day={day} />}
          </div>
        </>
      )}
    </ConformancePage>
  )
}

const DayTable = ({
  days,
  chosen,
  onChoose,
}: {
  days: Ahead['days']
  chosen: string | null
  onChoose: (day: string) => void
}) => (
  <table className="h-fit w-full text-left">
    <caption className="sr-only">Days on which musts fall due</caption>
    <thead className="text-[13px] text-ink-2">
      <tr>
        <th scope="col" className="font-normal">
          day
        </th>
        <th scope="col" className="text-right font-normal">
          musts
        </th>
        <th scope="col" className="text-right font-normal">
          courses
        </th>
      </tr>
    </thead>
    <tbody>
      {days.map(({ on, musts, count }) => (
        <tr key={on} className={`border-t border-line ${on === chosen ? 'bg-sheet' : ''}`}>
          <th scope="row" className="font-normal">
            <Button
              shape="word"
              className="py-0.5!"
              aria-pressed={on === chosen}
              onClick={() => onChoose(on)}
            >
              {formatDate(on, dayWords)}
            </Button>
          </th>
          <td className="text-right tabular-nums">{musts}</td>
          <td className="text-right tabular-nums">{count}</td>
        </tr>
      ))}
    </tbody>
  </table>
)

const OneDay = ({ day: { on, musts, count, courses, rules } }: { day: Ahead['days'][number] }) => {
  const isTwin = alikeAmong(courses)
  return (
    <section aria-live="polite">
      <h2 className="text-[18px]">
        {formatDate(on, dayWords)}: {plural(musts, 'must')} in {plural(count, 'course')}
      </h2>
      <p className="text-ink-2">
        <Link className="text-tide underline underline-offset-2" to={`/conformance?asOf=${on}`}>
          The weave as of that day
        </Link>
      </p>
      <div className="mt-2 grid gap-x-8 gap-y-3 md:grid-cols-2">
        <ul className="divide-y divide-line border-y border-line">
          {rules.map(({ title, musts: times }) => (
            <li key={title} className="flex justify-between gap-4 py-0.5">
              <span>{title}</span>
              <span className="tabular-nums">{times}</span>
            </li>
          ))}
        </ul>
        <ul className="divide-y divide-line border-y border-line">
          {courses.map((course) => (
            <li key={course.id} className="py-0.5">
              <CourseName course={course} to={`?asOf=${on}`} apart={isTwin(course)} />
            </li>
          ))}
          {count > courses.length && (
            <li className="py-0.5 text-ink-2">
              and {plural(count - courses.length, 'more course')}
            </li>
          )}
        </ul>
      </div>
    </section>
  )
}
