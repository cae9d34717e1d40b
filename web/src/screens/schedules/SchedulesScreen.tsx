import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Me, Schedule } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../api/client.ts'
import { useCourses, useTerms } from '../../api/queries.ts'
import { Button, Field, Moment, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { ConformancePage } from '../conformance/ConformancePage.tsx'
import { patternOf, patternWords, weekdayNames, type Often } from './pattern.ts'

/** When courses are read and checked without anybody asking for it. */
export const SchedulesScreen = ({ me }: { me: Me }) => {
  const schedules = useQuery({ queryKey: ['schedules'], queryFn: () => call('listSchedules') })
  const mayChange = may(me, 'check courses')
  return (
    <ConformancePage title="By schedule" here="by schedule">
      <p className="max-w-[52rem] text-ink-2">
        What changes on the platform is read and checked within seconds. A schedule reads all
        courses again at set times, whatever the platform said. Times that were missed are caught up
        once.
      </p>
      <Problem error={schedules.error} />
      {schedules.isPending && <Waiting what="the schedules" />}
      {schedules.data && (
        <ul className="mt-4 divide-y divide-line border-y border-line">
          {schedules.data.length === 0 && <li className="py-2 text-ink-2">There is none yet.</li>}
          {schedules.data.map((schedule) => (
            <Line key={schedule.id} schedule={schedule} me={me} mayChange={mayChange} />
          ))}
        </ul>
      )}
      {mayChange && <NewSchedule />}
    </ConformancePage>
  )
}

const Line = ({
  schedule: { id, pattern, timeZone, term, department, courses, paused, by, ...of },
  me,
  mayChange,
}: {
  schedule: Schedule
  me: Me
  mayChange: boolean
}) => {
  const client = useQueryClient()
  const done = { onSuccess: () => client.invalidateQueries({ queryKey: ['schedules'] }) }
  const pause = useMutation({
    mutationFn: () => call('pauseSchedule', { at: { schedule: id }, body: { paused: !paused } }),
    ...done,
  })
  const remove = useMutation({
    mutationFn: () => call('removeSchedule', { at: { schedule: id } }),
    ...done,
  })
  return (
    <li className="grid grid-cols-[18rem_minmax(0,1fr)_auto] items-baseline gap-x-4 py-1.5 max-lg:grid-cols-1">
      <p>
        <span className="font-semibold">{patternWords(pattern)}</span>{' '}
        <span className="text-ink-2">{timeZone}</span>
      </p>
      <div>
        <p>
          {plural(courses, 'course')}
          {department !== null && ` of ${department}`}
          {term ? ` in ${term.title}` : ', whatever the term'}
          <span className="text-ink-2"> · {by}</span>
        </p>
        <p className="text-ink-2">
          {paused ? (
            'paused'
          ) : of.nextAt === null ? (
            'never again'
          ) : (
            <>
              next <Moment at={of.nextAt} today={me.today} />
            </>
          )}
          {of.lastAt !== null && (
            <>
              {' · last '}
              <Moment at={of.lastAt} today={me.today} />
              {of.lastSaid !== '' && `: ${of.lastSaid}`}
              {of.lastSaid === '' && of.lastRun !== null && (
                <>
                  {': '}
                  <Link
                    className="text-tide underline underline-offset-2"
                    to={`/rollouts/${of.lastRun}`}
                  >
                    what came of it
                  </Link>
                </>
              )}
            </>
          )}
        </p>
      </div>
      {mayChange && (
        <p className="flex gap-x-3">
          <Button
            shape="word"
            className="py-0.5!"
            disabled={pause.isPending}
            onClick={() => pause.mutate()}
          >
            {paused ? 'go on' : 'pause'}
          </Button>
          <Button
            shape="word"
            className="py-0.5!"
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
          >
            take away
          </Button>
        </p>
      )}
      <Problem error={pause.error ?? remove.error} />
    </li>
  )
}

const oftenOptions = [
  { value: 'daily', text: 'every day' },
  { value: 'weekdays', text: 'Monday to Friday' },
  { value: 'weekly', text: 'once a week' },
  { value: 'own', text: 'by a pattern of one’s own' },
] as const satisfies readonly { value: Often; text: string }[]

const NewSchedule = () => {
  const client = useQueryClient()
  const terms = useTerms()
  const courses = useCourses()
  const [often, setOften] = useState<Often>('weekdays')
  const [time, setTime] = useState('06:00')
  const [weekday, setWeekday] = useState(1)
  const [own, setOwn] = useState('0 6 * * 1-5')
  const [term, setTerm] = useState('')
  const [department, setDepartment] = useState('')
  const add = useMutation({
    mutationFn: () =>
      call('addSchedule', {
        body: {
          pattern: often === 'own' ? own.trim() : patternOf(often, time, weekday),
          term: term === '' ? null : term,
          department: department === '' ? null : department,
        },
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['schedules'] }),
  })
  const departments = [...new Set((courses.data ?? []).map((course) => course.department))].sort()
  return (
    <form
      aria-labelledby="new-schedule"
      className="mt-6"
      onSubmit={(event) => {
        event.preventDefault()
        add.mutate()
      }}
    >
      <h2 id="new-schedule" className="text-[18px]">
        A new one
      </h2>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <Pick
          label="How often"
          value={often}
          onChange={(event) =>
            setOften(oftenOptions.find(({ value }) => value === event.target.value)?.value ?? 'own')
          }
          options={oftenOptions}
        />
        {often === 'weekly' && (
          <Pick
            label="On"
            value={String(weekday)}
            onChange={(event) => setWeekday(Number(event.target.value))}
            options={weekdayNames.map((name, i) => ({ value: String(i), text: name }))}
          />
        )}
        {often === 'own' ? (
          <Field
            label="Minute, hour, day of the month, month, weekday"
            className="w-80"
            value={own}
            onChange={(event) => setOwn(event.target.value)}
            required
          />
        ) : (
          <Field
            label="At"
            className="w-24"
            pattern="([01][0-9]|2[0-3]):[0-5][0-9]"
            title="A time of day, such as 05:30"
            value={time}
            onChange={(event) => setTime(event.target.value)}
            required
          />
        )}
        <Pick
          label="Courses in"
          value={term}
          onChange={(event) => setTerm(event.target.value)}
          options={[
            { value: '', text: 'every term' },
            ...(terms.data ?? []).map(({ code, title }) => ({ value: code, text: title })),
          ]}
        />
        <Pick
          label="Of"
          value={department}
          onChange={(event) => setDepartment(event.target.value)}
          options={[
            { value: '', text: 'every department' },
            ...departments.map((name) => ({ value: name, text: name })),
          ]}
        />
        <Button shape="main" type="submit" disabled={add.isPending}>
          Read and check by it
        </Button>
      </div>
      <Problem error={add.error} />
    </form>
  )
}
