import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import {
  evenUnits,
  formatDate,
  instructionalWeeks,
  isPlainDate,
  spanningTerm,
  unitStretches,
  weekdays,
  type Unit,
  type Weekday,
} from '@wickerframe/core'
import type { CourseCalendar, CourseDetail, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { addressOf, call } from '../../api/client.ts'
import { useTerms } from '../../api/queries.ts'
import { Button, Pick, plural, Problem } from '../../controls/controls.tsx'
import { DateField } from '../../controls/date/DateField.tsx'
import { CalendarLegend, TermCalendar } from '../terms/TermCalendar.tsx'

const isDay = (text: string | undefined): text is string => text !== undefined && isPlainDate(text)

/** A course's own calendar: what somebody decides (meeting days, units, a second term), and what follows from it. */
export const CourseCalendarTab = ({ course, me }: { course: CourseDetail; me: MeInCourse }) => {
  const { facts } = course
  const client = useQueryClient()
  const terms = useTerms()
  const stored: CourseCalendar = {
    meetingDays: facts.meetingDays ?? [],
    units: facts.units ?? [],
    nextTerm: facts.nextTerm?.code ?? null,
  }
  const [edited, setEdited] = useState<CourseCalendar | null>(null)
  const calendar = edited ?? stored
  const save = useMutation({
    mutationFn: () => call('decideCalendar', { at: { course: course.id }, body: calendar }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['course', String(course.id)] })
      setEdited(null)
    },
  })
  const mayEdit = may(me, 'decide for course')
  const change = (fields: Partial<CourseCalendar>) => setEdited({ ...calendar, ...fields })
  const nextTerm = terms.data?.find(({ code }) => code === calendar.nextTerm)
  const weeks = instructionalWeeks({
    term: facts.term,
    nextTerm,
    session: facts.session,
    count: facts.weeks,
  })
  const term = spanningTerm(facts.term, nextTerm)
  const session = facts.term.sessions.find((session) => session.code === facts.session)
  const shown = session ? { ...term, firstDay: session.firstDay, lastDay: session.lastDay } : term
  // What is being typed may be no day yet: it is neither drawn nor saved.
  const readable = calendar.units.filter(
    ({ firstDay, lastDay }) => firstDay === undefined || (isDay(firstDay) && isDay(lastDay)),
  )
  const areDays = readable.length === calendar.units.length
  const stretches = unitStretches(readable, weeks, term, calendar.meetingDays)
  const strands = stretches.map((unit) => ({
    title: unit.title ? `Unit ${unit.number}, ${unit.title}` : `Unit ${unit.number}`,
    first: unit.first,
    last: unit.last,
  }))
  const changed = JSON.stringify(calendar) !== JSON.stringify(stored)
  const setUnit = (index: number, fields: Partial<Unit>) =>
    change({
      units: calendar.units.map((unit, i) => (i === index ? { ...unit, ...fields } : unit)),
    })
  const toggle = (day: Weekday) =>
    change({
      meetingDays: weekdays.filter(
        (weekday) => calendar.meetingDays.includes(weekday) !== (weekday === day),
      ),
    })
  return (
    <div className="grid gap-6 lg:grid-cols-[26rem_minmax(0,1fr)]">
      <div>
        <fieldset disabled={!mayEdit}>
          <legend className="font-serif text-[15px]">The class meets on</legend>
          <div className="mt-1 grid grid-cols-2 gap-1">
            {weekdays.map((day) => (
              <label key={day} className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="size-[20px] accent-tide"
                  checked={calendar.meetingDays.includes(day)}
                  onChange={() => toggle(day)}
                />
                {day.slice(0, 1).toUpperCase() + day.slice(1)}
              </label>
            ))}
          </div>
          <p className="mt-1 text-ink-2">
            {calendar.meetingDays.length === 0
              ? 'None chosen: Monday to Friday.'
              : calendar.meetingDays.length === 2
                ? 'Twice a week: weeks have halves A and B.'
                : ''}
          </p>
        </fieldset>
        <fieldset disabled={!mayEdit} className="mt-4">
          <legend className="font-serif text-[15px]">Units</legend>
          <ul>
            {calendar.units.map((unit, i) => (
              <li key={unit.number} className="mb-1 flex flex-wrap items-end gap-2">
                <span className="w-12 pb-1">Unit {unit.number}</span>
                {unit.firstDay === undefined ? (
                  <>
                    <WeekPick
                      unit={unit.number}
                      label="from week"
                      show={i === 0}
                      value={unit.firstWeek}
                      weeks={weeks.map((week) => week.number)}
                      onPick={(firstWeek) => setUnit(i, { firstWeek })}
                    />
                    <WeekPick
                      unit={unit.number}
                      label="to week"
                      show={i === 0}
                      value={unit.lastWeek}
                      weeks={weeks.map((week) => week.number)}
                      onPick={(lastWeek) => setUnit(i, { lastWeek })}
                    />
                  </>
                ) : (
                  <>
                    <DateField
                      label={`unit ${unit.number}, first day`}
                      isLabelSeen={false}
                      isSmall
                      value={unit.firstDay}
                      near={term.firstDay}
                      onPick={(firstDay) => setUnit(i, { firstDay })}
                    />
                    <DateField
                      label={`unit ${unit.number}, last day`}
                      isLabelSeen={false}
                      isSmall
                      value={unit.lastDay ?? ''}
                      near={isDay(unit.firstDay) ? unit.firstDay : term.firstDay}
                      onPick={(lastDay) => setUnit(i, { lastDay })}
                    />
                  </>
                )}
              </li>
            ))}
          </ul>
          {calendar.units.length === 0 && (
            <p className="text-ink-2">
              No units are decided on; where the template has units, weeks are dealt out evenly.
            </p>
          )}
          <div className="mt-1 flex flex-wrap items-end gap-3">
            <Pick
              inline
              label="Divide evenly into"
              value=""
              onChange={(event) =>
                event.target.value &&
                change({ units: evenUnits(weeks, Number(event.target.value)) })
              }
              options={[
                { value: '', text: 'units …' },
                ...[2, 3, 4, 5, 6, 8]
                  .filter((count) => count <= weeks.length)
                  .map((count) => ({ value: String(count), text: `${count} units` })),
              ]}
            />
            {calendar.units.length > 0 && calendar.units[0]?.firstDay === undefined && (
              <Button
                shape="word"
                onClick={() =>
                  change({
                    units: stretches.map(({ number, first, last }) => ({
                      number,
                      firstDay: first,
                      lastDay: last,
                    })),
                  })
                }
              >
                decide by days
              </Button>
            )}
            {calendar.units.length > 0 && (
              <Button shape="word" onClick={() => change({ units: [] })}>
                no units
              </Button>
            )}
          </div>
        </fieldset>
        <Pick
          className="mt-4"
          label="Goes on in a second term"
          disabled={!mayEdit}
          value={calendar.nextTerm ?? ''}
          onChange={(event) => change({ nextTerm: event.target.value || null })}
          options={[
            { value: '', text: 'no' },
            ...(terms.data ?? [])
              .filter(({ firstDay }) => firstDay > facts.term.lastDay)
              .map(({ code, title }) => ({ value: code, text: title })),
          ]}
        />
        <div className="mt-3">
          <Problem error={save.error} />
        </div>
        <p className="mt-3 flex flex-wrap gap-3">
          {mayEdit && (
            <Button
              shape="main"
              disabled={!changed || !areDays || save.isPending}
              onClick={() => save.mutate()}
            >
              Save calendar
            </Button>
          )}
          {changed && <Button onClick={() => setEdited(null)}>Put back</Button>}
          {course.template && (
            <a
              className="rounded-sm border border-line-strong bg-sheet px-3 py-1.5 leading-tight font-semibold"
              href={addressOf('courseCalendar', { at: { course: course.id } })}
              download
            >
              Export weeks and due dates
            </a>
          )}
        </p>
        {save.isSuccess && !changed && (
          <p role="status" className="mt-2 text-ink-2">
            Saved. What the course should be is worked out anew with the next check.
          </p>
        )}
      </div>
      <div className="min-w-0">
        <TermCalendar term={shown} today={me.today} strands={strands} weeks={weeks} />
        <CalendarLegend strands={strands} />
        {stretches.length > 0 && (
          <ul className="mt-2 text-ink-2">
            {stretches.map((unit) => (
              <li key={unit.number}>
                Unit {unit.number}: {formatDate(unit.first, 'd MMM')} to{' '}
                {formatDate(unit.last, 'd MMM')},{' '}
                {unit.hasWeekLevel ? `${plural(unit.weeks.length, 'week')}, ` : ''}
                {plural(unit.days.length, 'class day')}
              </li>
            ))}
          </ul>
        )}
      </div>
    </div>
  )
}

const WeekPick = ({
  unit,
  label,
  show,
  value,
  weeks,
  onPick,
}: {
  unit: number
  label: string
  show: boolean
  value: number | undefined
  weeks: readonly number[]
  onPick: (week: number) => void
}) => (
  <label className="flex flex-col text-[12px] text-ink-2">
    <span aria-hidden="true" className={show ? '' : 'sr-only'}>
      {label}
    </span>
    <select
      aria-label={`Unit ${unit}, ${label}`}
      className="border border-line-strong bg-sheet px-1.5 py-0.5 text-[13px] text-ink"
      value={value}
      onChange={(event) => onPick(Number(event.target.value))}
    >
      {weeks.map((week) => (
        <option key={week}>{week}</option>
      ))}
    </select>
  </label>
)
