import { useMutation } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { daysBetween, type CarryKind } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useCourses, useTerms } from '../../api/queries.ts'
import { Button, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { Tick } from '../../controls/typed.tsx'
import { useAddress } from '../../shell/useAddress.ts'

const kinds: readonly { kind: CarryKind; words: string; usual: boolean }[] = [
  {
    kind: 'contact-cards',
    words: 'welcomes, contact cards and office hours that were filled in',
    usual: true,
  },
  { kind: 'answers', words: 'other answers to fill-ins', usual: true },
  { kind: 'topics', words: 'the instructor’s own words in names', usual: true },
  { kind: 'own-pages', words: 'pages they added', usual: true },
  {
    kind: 'own-activities',
    words: 'discussions, assignments, assessments and links they added',
    usual: false,
  },
  { kind: 'announcements', words: 'announcements and notices', usual: false },
]

/** Next term's courses from this term's: new shells, new dates and names, and what of the instructors' comes along. */
export const NextTermScreen = ({ me }: { me: Me }) => {
  const terms = useTerms()
  const courses = useCourses()
  const { search, set } = useAddress()
  const [carry, setCarry] = useState<ReadonlySet<CarryKind>>(
    new Set(kinds.filter((kind) => kind.usual).map((kind) => kind.kind)),
  )
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set())
  const now = terms.data?.find((term) => term.firstDay <= me.today && term.lastDay >= me.today)
  const from = search.get('from') ?? now?.code ?? ''
  const later = useMemo(
    () =>
      (terms.data ?? []).filter(
        (term) => term.firstDay > (terms.data?.find(({ code }) => code === from)?.firstDay ?? ''),
      ),
    [terms.data, from],
  )
  const daysOf = (term: { firstDay: string; lastDay: string } | undefined) =>
    term ? daysBetween(term.firstDay, term.lastDay) : 0
  const length = daysOf(terms.data?.find(({ code }) => code === from))
  // The next term of about the same length, which a short one in between is not.
  const likely = [...later].sort(
    (a, b) =>
      Math.round(Math.abs(daysOf(a) - length) / 28) -
        Math.round(Math.abs(daysOf(b) - length) / 28) || a.firstDay.localeCompare(b.firstDay),
  )[0]
  const to = search.get('to') ?? likely?.code ?? ''
  const department = search.get('department') ?? ''
  const make = useMutation({
    mutationFn: (ids: readonly number[]) =>
      call('makeNextTerm', { body: { term: to, courses: ids, carry: [...carry] } }),
  })
  if (terms.isPending || courses.isPending)
    return (
      <Page title="Next term">
        <Waiting what="terms and courses" />
      </Page>
    )
  const these = (courses.data ?? []).filter(
    (course) => course.term === from && course.status === 'teaching' && course.state === 'deployed',
  )
  const shown = these.filter((course) => department === '' || course.department === department)
  const chosen = shown.filter((course) => !leftOut.has(course.id))
  const apart = tellApart(these)
  const blank = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  return (
    <Page
      title="Next term"
      above={
        <>
          <Link className="underline" to="/rollouts">
            Rollouts
          </Link>{' '}
          › new courses from earlier ones
        </>
      }
    >
      <p className="mt-3 font-serif text-[18px] leading-loose">
        From the courses of{' '}
        <select
          aria-label="Earlier term"
          className={blank}
          value={from}
          onChange={(event) => set({ from: event.target.value, to: null })}
        >
          {terms.data?.map((term) => (
            <option key={term.code} value={term.code}>
              {term.title}
            </option>
          ))}
        </select>{' '}
        of{' '}
        <select
          aria-label="Department"
          className={blank}
          value={department}
          onChange={(event) => set({ department: event.target.value })}
        >
          <option value="">every department</option>
          {[...new Set(these.map((course) => course.department))].sort().map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>{' '}
        make <strong>{plural(chosen.length, 'course')}</strong> of{' '}
        <select
          aria-label="New term"
          className={blank}
          value={to}
          onChange={(event) => set({ to: event.target.value })}
        >
          {later.map((term) => (
            <option key={term.code} value={term.code}>
              {term.title}
            </option>
          ))}
        </select>
        , with its dates and names.
      </p>
      <fieldset className="mt-2 border border-line bg-sheet px-3 py-2">
        <legend className="px-1 font-semibold">What comes along</legend>
        <div className="grid gap-1 md:grid-cols-2">
          {kinds.map(({ kind, words }) => (
            <Tick
              key={kind}
              label={words}
              checked={carry.has(kind)}
              onChange={(on) =>
                setCarry((before) => {
                  const next = new Set(before)
                  if (on) next.add(kind)
                  else next.delete(kind)
                  return next
                })
              }
            />
          ))}
        </div>
        <p className="mt-1 text-ink-2">
          Nothing that stands in a staff or hidden module leaves its course. Dates, names of the
          earlier term and outside tools to attest again are listed in each plan.
        </p>
      </fieldset>
      <details className="mt-3 border border-line bg-sheet">
        <summary className="cursor-pointer px-3 py-1.5 font-semibold">
          Which courses: {chosen.length} of {these.length}
        </summary>
        <ul
          className="grid max-h-60 grid-cols-2 overflow-y-auto border-t border-line p-2 lg:grid-cols-3"
          tabIndex={0}
          aria-label="Courses to begin from"
        >
          {shown.map((course) => (
            <li key={course.id}>
              <label className="flex gap-2 px-1 py-0.5">
                <input
                  type="checkbox"
                  className="size-[24px] shrink-0 accent-tide"
                  checked={!leftOut.has(course.id)}
                  onChange={() =>
                    setLeftOut((before) => {
                      const next = new Set(before)
                      if (!next.delete(course.id)) next.add(course.id)
                      return next
                    })
                  }
                />
                <span>
                  {course.code} {course.title}{' '}
                  <span className="text-ink-2">{apart.get(course.platformId)}</span>
                </span>
              </label>
            </li>
          ))}
        </ul>
      </details>
      <div className="mt-4 flex flex-wrap items-center gap-3">
        <Button
          shape="main"
          disabled={to === '' || chosen.length === 0 || make.isPending || make.isSuccess}
          onClick={() => make.mutate(chosen.map((course) => course.id))}
        >
          {make.isPending
            ? 'Making the shells …'
            : `Make ${plural(chosen.length, 'shell')} and plan`}
        </Button>
        <span className="text-ink-2">
          Shells are made on the platform; nothing is put into them before you approve the plans.
        </span>
      </div>
      <Problem error={make.error} />
      {make.data && (
        <div className="mt-3" role="status">
          <p className="font-semibold">
            {plural(make.data.runs.length, 'rollout')} planned:{' '}
            {make.data.runs.map((run, i) => (
              <span key={run}>
                {i > 0 && ', '}
                <Link className="text-tide underline" to={`/rollouts/${run}`}>
                  run {run}
                </Link>
              </span>
            ))}
          </p>
          {make.data.leftOut.length > 0 && (
            <ul className="list-disc pl-5 text-straw">
              {make.data.leftOut.map((one) => (
                <li key={one.course}>
                  {courses.data?.find((course) => course.id === one.course)?.code}: {one.reason}
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </Page>
  )
}
