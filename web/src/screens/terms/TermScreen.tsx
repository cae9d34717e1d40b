import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import {
  canonicalJson,
  instructionalWeeks,
  readDocument,
  Term,
  type FreeDays,
} from '@wickerframe/core'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { addressOf, ApiError, call, send } from '../../api/client.ts'
import { useTerm } from '../../api/queries.ts'
import { Button, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { CalendarLegend, TermCalendar } from './TermCalendar.tsx'
import { TermChanges } from './TermChanges.tsx'
import { TermForm } from './TermForm.tsx'

const blank = (today: string): Term => ({
  code: '',
  title: '',
  timeZone: 'America/Halifax',
  firstDay: today,
  lastDay: today,
  weekStartsOn: 'monday',
  breaks: [],
  breakWeeksCount: true,
  preparatoryWeek: false,
  shortFirstWeek: 'counts',
  shortLastWeek: 'counts',
  holidays: [],
  otherDates: [],
  sessions: [],
})

const settlesAfterMilliseconds = 350

/** A value once it has not changed for a moment. */
const useSettled = <T,>(value: T): T => {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), settlesAfterMilliseconds)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}

const HolidayFile = ({ term, onFree }: { term: Term; onFree: (free: FreeDays) => void }) => {
  const input = useRef<HTMLInputElement>(null)
  const read = useMutation({
    mutationFn: (file: File) =>
      send('readFreeDays', file, 'text/calendar', {
        query: { from: term.firstDay, until: term.lastDay },
      }),
    onSuccess: onFree,
  })
  return (
    <>
      <Button shape="word" onClick={() => input.current?.click()}>
        import from a calendar file (.ics)
      </Button>
      <input
        ref={input}
        type="file"
        accept=".ics,text/calendar"
        className="sr-only"
        tabIndex={-1}
        aria-label="Calendar file with holidays"
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) read.mutate(file)
          event.target.value = ''
        }}
      />
      {read.data && (
        <span role="status" className="text-ink-2">
          {plural(read.data.holidays.length, 'holiday')} and{' '}
          {plural(read.data.breaks.length, 'break')} read
          {read.data.leftOut > 0
            ? `; ${read.data.leftOut} left out, as they are no whole days or lie outside the term`
            : ''}
          .
        </span>
      )}
      <Problem error={read.error} />
    </>
  )
}

/** Rows of a list and those that are new in another, told apart by what stands in them. */
const joined = <R extends object>(present: readonly R[], more: readonly R[]): R[] => [
  ...present,
  ...more.filter((day) => !present.some((other) => canonicalJson(other) === canonicalJson(day))),
]

export const TermScreen = ({ me }: { me: Me }) => {
  const { code = '' } = useParams()
  const isNew = code === 'new'
  const loaded = useTerm(isNew ? null : code)
  if (isNew) return <TermEditor key="new" me={me} stored={null} revision={null} courses={0} />
  if (loaded.isPending)
    return (
      <Page title="Term">
        <Waiting what="the term" />
      </Page>
    )
  if (!loaded.data)
    return (
      <Page title="Term">
        <Problem error={loaded.error} />
      </Page>
    )
  return (
    <TermEditor
      key={loaded.data.revision}
      me={me}
      stored={loaded.data.term}
      revision={loaded.data.revision}
      courses={loaded.data.courses.length}
    />
  )
}

const TermEditor = ({
  me,
  stored,
  revision,
  courses,
}: {
  me: Me
  stored: Term | null
  revision: string | null
  courses: number
}) => {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [typed, setTyped] = useState<Term>(stored ?? blank(me.today))
  const [sound, setSound] = useState<Term>(typed)
  const mayEdit = may(me, 'keep terms')
  const read = readDocument(Term, typed)
  const problems = read.ok ? [] : read.problems
  const changed = canonicalJson(typed) !== canonicalJson(stored)
  const change = (fields: Partial<Term>) => {
    const next = { ...typed, ...fields }
    setTyped(next)
    const nextRead = readDocument(Term, next)
    if (nextRead.ok) setSound(nextRead.value)
  }
  const settled = useSettled(sound)
  const asked = canonicalJson(settled)
  const preview = useQuery({
    queryKey: ['term-preview', stored?.code, revision, asked],
    queryFn: () =>
      call('previewTerm', { at: { term: stored?.code ?? '' }, body: { term: settled } }),
    enabled: stored !== null && mayEdit && asked !== canonicalJson(stored),
    staleTime: Infinity,
  })
  const save = useMutation({
    mutationFn: (was: string | null) =>
      call('saveTerm', {
        at: { term: typed.code },
        query: stored ? { shown: preview.data?.digest ?? '' } : {},
        body: { was, term: typed },
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['terms'] })
      await client.invalidateQueries({ queryKey: ['term', typed.code] })
      if (stored === null) await navigate(`/terms/${typed.code}`)
    },
    // What was refused may be refused since the courses changed: they are listed anew.
    onError: async () => {
      if (stored !== null) await preview.refetch()
    },
  })
  const clash = save.error instanceof ApiError ? save.error.body.clash : undefined
  const weeks = instructionalWeeks({ term: sound })
  const strands = sound.sessions.map((session) => ({
    title: session.title,
    first: session.firstDay,
    last: session.lastDay,
  }))
  const blocked = preview.data?.changes.some((change) => change.problem !== null) ?? false
  // What is saved is what was shown: not before the courses that this very edit reaches are listed.
  const shown = stored === null || (preview.isSuccess && asked === canonicalJson(typed))
  return (
    <Page
      title={typed.title || 'New term'}
      above={
        <>
          <Link className="underline" to="/terms">
            Terms
          </Link>{' '}
          › {plural(weeks.filter((week) => week.number > 0).length, 'week')}
          {stored ? ` · ${plural(courses, 'course')}` : ''}
        </>
      }
      beside={
        <>
          {stored && (
            <a
              className="rounded-sm border border-line-strong bg-sheet px-3 py-1.5 leading-tight font-semibold"
              href={addressOf('termCalendar', { at: { term: stored.code } })}
              download
            >
              Export calendar
            </a>
          )}
          {mayEdit && changed && stored && (
            <Button
              onClick={() => {
                setTyped(stored)
                setSound(stored)
                save.reset()
              }}
            >
              Put back
            </Button>
          )}
          {mayEdit && (
            <Button
              shape="main"
              disabled={!changed || !shown || problems.length > 0 || save.isPending || blocked}
              onClick={() => save.mutate(revision)}
            >
              {stored ? 'Save term' : 'Make term'}
            </Button>
          )}
        </>
      }
    >
      <div className="mt-2">
        <Problem error={clash ? null : save.error} />
      </div>
      {clash && (
        <div role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-2">
          <p>Somebody else saved this term meanwhile. What you typed is still here.</p>
          <p className="mt-1 flex gap-4">
            <Button
              shape="word"
              onClick={() => void client.invalidateQueries({ queryKey: ['term', typed.code] })}
            >
              show theirs, and lose mine
            </Button>
          </p>
        </div>
      )}
      <div className="mt-3 grid gap-6 lg:grid-cols-[32rem_minmax(0,1fr)]">
        <TermForm
          term={typed}
          today={me.today}
          problems={problems}
          mayEdit={mayEdit}
          isNew={stored === null}
          change={change}
          importing={
            mayEdit && (
              <HolidayFile
                term={sound}
                onFree={(free) =>
                  change({
                    holidays: joined(typed.holidays, free.holidays),
                    breaks: joined(typed.breaks, free.breaks),
                  })
                }
              />
            )
          }
        />
        <div className="min-w-0">
          <TermCalendar term={sound} today={me.today} strands={strands} />
          <CalendarLegend strands={strands} />
          {stored && mayEdit && (
            <section className="mt-5" aria-live="polite">
              <h2 className="text-[18px]">What saving would change</h2>
              {!changed ? (
                <p className="text-ink-2">
                  Nothing is edited yet. Change a date, and the courses it reaches are listed here
                  before anything is saved.
                </p>
              ) : preview.isPending ? (
                <p className="text-ink-2">Working it out …</p>
              ) : preview.data ? (
                <TermChanges preview={preview.data} />
              ) : (
                <Problem error={preview.error} />
              )}
            </section>
          )}
        </div>
      </div>
    </Page>
  )
}
