import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Impact } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem, Sentence } from '../../../controls/controls.tsx'
import { CourseName } from '../../../controls/CourseName.tsx'
import { alikeAmong } from '../../../controls/tellApart.ts'

const askedEvery = 1000
const isOpen = (impact: Impact | null | undefined): boolean =>
  impact?.state === 'running' || impact?.state === 'paused'

/** What the draft would change for the courses under its template, held against them as they were last read. */
export const ImpactOnCourses = ({
  template,
  revision,
  waiting,
}: {
  template: string
  revision: number
  /** Whether edits are still on their way to the server. */
  waiting: boolean
}) => {
  const client = useQueryClient()
  const key = ['template', template, 'impact']
  const held = useQuery({
    queryKey: key,
    queryFn: () => call('readImpact', { at: { template } }),
    refetchInterval: ({ state }) => (state.data?.state === 'running' ? askedEvery : false),
  })
  const again = () => client.invalidateQueries({ queryKey: key })
  const hold = useMutation({
    mutationFn: () => call('holdAgainstCourses', { at: { template }, body: { revision } }),
    onSuccess: again,
  })
  const command = useMutation({
    mutationFn: (name: 'pauseRun' | 'resumeRun' | 'cancelRun' | 'retryRun') =>
      call(name, { at: { run: held.data?.run ?? 0 } }),
    onSuccess: again,
  })
  const impact = held.data
  const isThis = impact?.revision === revision
  return (
    <section aria-labelledby="impact" className="mt-3 border-t border-line pt-2">
      <h3 id="impact" className="font-serif text-[17px] font-semibold">
        What it would change for courses
      </h3>
      <Problem error={held.error ?? hold.error ?? command.error} />
      {!isOpen(impact) && (!impact || !isThis || impact.state === 'cancelled') && (
        <p className="text-ink-2">
          {impact && !isThis
            ? 'The draft was changed since it was last held against courses. '
            : 'Hold the draft against every course under this template, as each was last read: which become ready, which stop, by what, and what a rollout would do. Nothing is written anywhere. '}
        </p>
      )}
      <p className="flex flex-wrap items-baseline gap-x-4">
        {!isOpen(impact) && (
          <Button
            disabled={waiting || hold.isPending || held.isPending}
            onClick={() => hold.mutate()}
          >
            {impact ? 'Hold it against the courses again' : 'Hold it against the courses'}
          </Button>
        )}
        {impact && <Progress impact={impact} />}
        {impact?.state === 'running' && (
          <Button shape="word" onClick={() => command.mutate('pauseRun')}>
            pause
          </Button>
        )}
        {impact?.state === 'paused' && (
          <Button shape="word" onClick={() => command.mutate('resumeRun')}>
            go on
          </Button>
        )}
        {isOpen(impact) && (
          <Button shape="word" onClick={() => command.mutate('cancelRun')}>
            stop
          </Button>
        )}
        {impact && impact.failed > 0 && !isOpen(impact) && (
          <Button shape="word" onClick={() => command.mutate('retryRun')}>
            try the failed ones again
          </Button>
        )}
      </p>
      {impact && impact.courses + impact.unread + impact.doNotFit.count > 0 && (
        <div className={isThis ? '' : 'opacity-70'}>
          {!isThis && (
            <p className="mt-2 font-semibold">
              As it was {plural(Math.abs(revision - impact.revision), 'edit')} ago:
            </p>
          )}
          <Figures impact={impact} />
        </div>
      )}
    </section>
  )
}

const Progress = ({ impact }: { impact: Impact }) => {
  const { all, done, failed, secondsLeft, state } = impact
  return (
    <span role="status" className="text-ink-2">
      {done + failed < all
        ? `Held against ${done} of ${plural(all, 'course')}`
        : `Held against ${plural(all, 'course')}`}
      {failed > 0 && `, ${failed} failed`}
      {state === 'paused' && ', paused'}
      {state === 'cancelled' && ', stopped'}
      {state === 'running' && secondsLeft !== null && `, about ${Math.ceil(secondsLeft)} s left`}
    </span>
  )
}

const howMany = (count: number, one: string, many: string): string =>
  count === 0 ? `No course ${one}` : plural(count, `course ${one}`, `courses ${many}`)

const Figures = ({ impact }: { impact: Impact }) => (
  <>
    {impact.doNotFit.count > 0 && (
      <div className="mt-2 border-l-4 border-rust px-3">
        <Courses
          says={`It cannot be worked out for ${plural(impact.doNotFit.count, 'course')}: ${impact.doNotFit.reason}`}
          named={impact.doNotFit}
        />
      </div>
    )}
    {impact.courses > 0 && (
      <>
        <Standings impact={impact} />
        <div className="mt-2 grid gap-x-6 md:grid-cols-2">
          <Courses
            says={`${howMany(impact.becomeReady.count, 'becomes', 'become')} ready`}
            named={impact.becomeReady}
          />
          <Courses
            says={`${howMany(impact.stopBeingReady.count, 'stops', 'stop')} being ready`}
            named={impact.stopBeingReady}
          />
        </div>
        <Requirements impact={impact} />
        <Rollout impact={impact} />
      </>
    )}
    {impact.unread > 0 && (
      <p className="mt-1 text-ink-2">
        Of {plural(impact.unread, 'course')} nothing can be told: never read, or not to be judged as
        it stands now.
      </p>
    )}
  </>
)

const whens = [
  ['now', 'now'],
  ['after', 'once it is rolled out'],
] as const

/** How the courses stand now, and once the draft is out: a bar for those ready, and the figures. */
const Standings = ({ impact }: { impact: Impact }) => (
  <table className="mt-2 w-full max-w-[46rem] text-left">
    <caption className="sr-only">How these courses stand</caption>
    <thead className="text-[13px] text-ink-2">
      <tr>
        <th scope="col" />
        <th scope="col" className="font-normal">
          ready
        </th>
        <th scope="col" className="pl-4 text-right font-normal whitespace-nowrap">
          open musts
        </th>
        <th scope="col" className="pl-4 text-right font-normal whitespace-nowrap">
          open shoulds
        </th>
      </tr>
    </thead>
    <tbody>
      {whens.map(([when, says]) => {
        const { ready, openMusts, openShoulds } = impact[when]
        return (
          <tr key={when} className="border-t border-line">
            <th scope="row" className="w-52 py-0.5 font-normal">
              {says}
            </th>
            <td>
              <span className="flex items-center gap-2">
                <span aria-hidden className="block h-3 w-44 border border-line-strong bg-sheet">
                  <span
                    className="block h-full bg-tide"
                    style={{ width: `${(100 * ready) / impact.courses}%` }}
                  />
                </span>
                <span className="tabular-nums">
                  {ready} of {impact.courses}
                </span>
              </span>
            </td>
            <td className="pl-4 text-right tabular-nums">{openMusts}</td>
            <td className="pl-4 text-right tabular-nums">{openShoulds}</td>
          </tr>
        )
      })}
    </tbody>
  </table>
)

/** So many courses, the first of them by name. */
const Courses = ({
  says,
  named: { count, courses },
}: {
  says: string
  named: Impact['becomeReady']
}) => {
  const isTwin = alikeAmong(courses)
  if (count === 0) return <p className="text-ink-2">{says}</p>
  return (
    <details>
      <summary className="cursor-pointer">{says}</summary>
      <ul className="pl-4">
        {courses.map((course) => (
          <li key={course.id}>
            <CourseName course={course} apart={isTwin(course)} />
          </li>
        ))}
        {count > courses.length && (
          <li className="text-ink-2">and {count - courses.length} more</li>
        )}
      </ul>
    </details>
  )
}

const fewRequirements = 6

/** By which requirement: in how many courses each comes open, and in how many it is closed. */
const Requirements = ({ impact: { requirements } }: { impact: Impact }) => {
  const [all, setAll] = useState(false)
  if (requirements.length === 0)
    return <p className="mt-2 text-ink-2">No requirement comes open or is closed by it.</p>
  return (
    <div className="mt-2">
      <table className="w-full text-left">
        <caption className="text-left font-semibold">By which requirement</caption>
        <thead className="text-[13px] text-ink-2">
          <tr>
            <th scope="col" className="font-normal">
              <span className="sr-only">requirement</span>
            </th>
            <th scope="col" className="pl-4 text-right font-normal whitespace-nowrap">
              comes open
            </th>
            <th scope="col" className="pl-4 text-right font-normal whitespace-nowrap">
              is closed
            </th>
          </tr>
        </thead>
        <tbody>
          {(all ? requirements : requirements.slice(0, fewRequirements)).map((one) => (
            <tr
              key={`${one.rule} ${one.part} ${one.strength}`}
              className="border-t border-line align-baseline"
            >
              <th scope="row" className="py-0.5 font-normal">
                <span
                  className={`mr-2 text-[13px] font-semibold ${one.strength === 'must' ? 'text-rust' : 'text-straw'}`}
                >
                  {one.strength}
                </span>
                <Sentence text={one.says} strength={one.strength} />
              </th>
              {[one.opens, one.closes].map((count, i) => (
                <td key={i} className="pl-4 text-right whitespace-nowrap tabular-nums">
                  {count === 0 ? <span className="text-ink-2">–</span> : plural(count, 'course')}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {requirements.length > fewRequirements && (
        <Button shape="word" onClick={() => setAll(!all)}>
          {all ? 'show the first ones' : `show all ${requirements.length}`}
        </Button>
      )}
    </div>
  )
}

const partsDone: readonly (readonly [does: string, word: string])[] = [
  ['create', 'created'],
  ['change', 'changed'],
  ['move', 'moved'],
  ['remove', 'removed'],
]

const Rollout = ({ impact: { rollout } }: { impact: Impact }) => {
  const parts = partsDone.flatMap(([does, word]) => {
    const count = rollout.counts[does] ?? 0
    return count > 0 ? [`${plural(count, 'part')} ${word}`] : []
  })
  return (
    <p className="mt-2">
      {rollout.changed === 0
        ? 'A rollout would have nothing to do in any of them'
        : `A rollout would change ${plural(rollout.changed, 'course')}${parts.length > 0 ? `: ${parts.join(', ')}` : ''}`}
      .{' '}
      {rollout.undecided > 0 &&
        `In ${plural(rollout.undecided, 'course')} it meets what somebody wrote since, for you to decide. `}
      {rollout.changed > 0 &&
        rollout.untouched > 0 &&
        `${rollout.untouched} ${rollout.untouched === 1 ? 'has' : 'have'} everything already. `}
      {rollout.leftOut > 0 && `${rollout.leftOut} would be left out. `}
      {rollout.checkedOnly > 0 &&
        `${plural(rollout.checkedOnly, 'course stands', 'courses stand')} under it for checking only.`}
    </p>
  )
}
