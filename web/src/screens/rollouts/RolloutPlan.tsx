import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Decided, RunDetail, ShapeGroup } from '@wickerframe/contract'
import { everyPart } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useVersion } from '../../api/queries.ts'
import { Button, plural, Problem } from '../../controls/controls.tsx'
import { Tick } from '../../controls/typed.tsx'
import { doesWords, leavingWords, totalsOf, partWords } from './planWords.ts'
import { Shapes } from './Shapes.tsx'

/** What is done about every conflict nobody decides on by itself. */
const rules = ['keep', 'take'] as const

/** The plans of a rollout before they are approved: totals, shapes, conflicts and what to do about them. */
export const RolloutPlan = ({ detail, may }: { detail: RunDetail; may: boolean }) => {
  const client = useQueryClient()
  const { id, order } = detail
  const [leftOut, setLeftOut] = useState<ReadonlySet<number>>(new Set())
  const shapes = useQuery({
    queryKey: ['run', id, 'shapes', detail.state, detail.counts.planned],
    queryFn: () => call('rolloutShapes', { at: { run: id } }),
    placeholderData: (before) => before,
  })
  const refresh = () => client.invalidateQueries({ queryKey: ['run', id] })
  const decide = useMutation({
    mutationFn: (wanted: Decided) => call('decideConflicts', { at: { run: id }, body: wanted }),
    onSuccess: refresh,
  })
  const groups = shapes.data ?? []
  const ready = groups
    .filter((group) => group.summary.state === 'ready')
    .flatMap((group) => group.courses.map((course) => course.course))
  const going = ready.filter((course) => !leftOut.has(course))
  const approve = useMutation({
    // With the plans as they are shown: where one is another by now, nothing runs.
    mutationFn: () =>
      call('approveRun', {
        at: { run: id },
        body: {
          shown: groups
            .flatMap((group) => group.courses)
            .filter(({ course }) => going.includes(course))
            .map(({ course, digest }) => ({ course, digest })),
        },
      }),
    onSettled: refresh,
  })
  const undecided = groups.reduce(
    (sum, group) =>
      sum +
      (group.summary.state === 'ready'
        ? group.summary.undecided *
          group.courses.filter((course) => !leftOut.has(course.course)).length
        : 0),
    0,
  )
  const totals = totalsOf(
    groups
      .filter((group) => group.summary.state === 'ready')
      .map((group) => ({
        lines: group.summary.lines,
        courses: group.courses.filter((course) => !leftOut.has(course.course)).length,
      })),
  )
  const leaving = leavingWords(
    groups
      .flatMap((group) => group.courses)
      .filter(({ course }) => going.includes(course))
      .map(({ leaves }) => leaves),
  )
  const planning = detail.state === 'planning'
  const choice = 'border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink'
  return (
    <section className="mt-4">
      <div className="flex flex-wrap items-center justify-between gap-3 border border-line bg-sheet px-4 py-3">
        <div className="min-w-0">
          <p className="text-[16px]">
            <strong>{plural(going.length, 'course')}</strong>:{' '}
            {totals.length === 0
              ? planning
                ? 'nothing to do so far'
                : 'nothing to do'
              : totals
                  .map(({ does, count }) => `${doesWords[does]} ${count.toLocaleString('en')}`)
                  .join(', ')}
          </p>
          {leaving.map((words) => (
            <p key={words} className="font-semibold text-rust">
              {words}.
            </p>
          ))}
          {undecided > 0 && (
            <p className="text-rust">
              {plural(undecided, 'conflict')} not decided on: left as they are, and the courses stay
              under their present version there.
            </p>
          )}
        </div>
        {may && (
          <div className="flex flex-wrap items-center gap-3">
            <Button
              shape="main"
              disabled={planning || going.length === 0 || approve.isPending}
              onClick={() => approve.mutate()}
            >
              Approve and run {plural(going.length, 'course')}
            </Button>
          </div>
        )}
      </div>
      {may && order?.mode === 'version' && (
        <div className="mt-2 flex flex-wrap items-center gap-x-8 gap-y-1">
          <label className="leading-loose">
            Where template and instructor both changed something,{' '}
            <select
              className={choice}
              value={detail.rule ?? ''}
              disabled={decide.isPending}
              onChange={(event) =>
                decide.mutate({ rule: rules.find((rule) => rule === event.target.value) ?? null })
              }
            >
              <option value="">I decide one by one</option>
              <option value="keep">keep the instructor’s</option>
              <option value="take">take the template’s</option>
            </select>
          </label>
          <Tick
            label="restore altered fixed text"
            checked={order.restore.fixedText}
            onChange={(fixedText) => decide.mutate({ restore: { ...order.restore, fixedText } })}
          />
          <Tick
            label="bring back removed parts"
            checked={order.restore.missingParts}
            onChange={(missingParts) =>
              decide.mutate({ restore: { ...order.restore, missingParts } })
            }
          />
          {order.except.length > 0 && (
            <LeftOut order={order} onAgain={() => decide.mutate({ except: [] })} />
          )}
          <LeaveOutPart
            groups={groups}
            onLeave={(part) => decide.mutate({ except: [...order.except, part] })}
          />
        </div>
      )}
      <Problem error={approve.error ?? decide.error ?? shapes.error} />
      <h2 className="mt-4 text-[18px]">Plans that look alike, together</h2>
      <Shapes
        run={id}
        groups={groups}
        leftOut={leftOut}
        onLeaveOut={
          may
            ? (courses, out) =>
                setLeftOut((before) => {
                  const next = new Set(before)
                  for (const course of courses)
                    if (out) next.add(course)
                    else next.delete(course)
                  return next
                })
            : null
        }
        decideIn={
          may && order?.mode === 'version'
            ? (course) => (instance, field, decision) =>
                decide.mutate({ decisions: [{ course, instance, field, decision }] })
            : null
        }
      />
    </section>
  )
}

/** The parts that are left out of the whole rollout, by the names that the version gives them. */
const LeftOut = ({
  order: { template, version, except },
  onAgain,
}: {
  order: Extract<NonNullable<RunDetail['order']>, { mode: 'version' }>
  onAgain: () => void
}) => {
  const document = useVersion(template, version)
  const parts = new Map(
    document.data ? everyPart(document.data).map((part) => [part.key, part.name]) : [],
  )
  return (
    <span>
      left out: {except.map((key) => `“${parts.get(key) ?? key}”`).join(', ')}{' '}
      <Button shape="word" onClick={onAgain}>
        have them again
      </Button>
    </span>
  )
}

/** One part of the version that is left out of the whole rollout. */
const LeaveOutPart = ({
  groups,
  onLeave,
}: {
  groups: readonly ShapeGroup[]
  onLeave: (part: string) => void
}) => {
  const parts = new Map(
    groups.flatMap((group) =>
      group.summary.lines.flatMap((line) =>
        line.does === 'keep' || line.part === 'course' ? [] : [[line.part, line] as const],
      ),
    ),
  )
  if (parts.size < 2) return null
  return (
    <label className="flex gap-1 text-ink-2">
      leave out
      <select
        className="border border-line-strong bg-sheet px-1 text-ink"
        value=""
        onChange={(event) => onLeave(event.target.value)}
      >
        <option value="">a part …</option>
        {[...parts].map(([part, line]) => (
          <option key={part} value={part}>
            {partWords(line)}
          </option>
        ))}
      </select>
    </label>
  )
}
