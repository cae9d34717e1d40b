import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Decided, RunDetail, TaskState } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Moment, plural, Problem } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { CoursePlanView } from './CoursePlanView.tsx'
import { Mends } from './Mends.tsx'
import { Renames } from './Renames.tsx'
import { isOver, taskOrder, taskWords } from './runWords.ts'

const tasksIn = (detail: RunDetail): number =>
  Object.values(detail.counts).reduce((sum, count) => sum + count, 0)
const undoable = (state: TaskState): boolean => state === 'done'

/** What came of a run, course by course; from here it is taken back, for all or for some. */
export const RolloutResult = ({ detail, may }: { detail: RunDetail; may: boolean }) => {
  const client = useQueryClient()
  const navigate = useNavigate()
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set())
  const [opened, setOpened] = useState<number | null>(null)
  const { id } = detail
  const apart = tellApart(detail.tasks)
  const isRollout = detail.kind === 'rollout' && detail.order !== null
  const over = isOver(detail)
  const tasks = detail.tasks.toSorted(
    (a, b) => taskOrder.indexOf(a.state) - taskOrder.indexOf(b.state),
  )
  const held = detail.tasks.filter((task) => task.state === 'held').map((task) => task.course)
  const undo = useMutation({
    mutationFn: (courses: readonly number[]) =>
      call('undoRollout', { at: { run: id }, body: courses.length > 0 ? { courses } : {} }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  const again = useMutation({
    mutationFn: (courses: readonly number[]) =>
      call('approveRun', { at: { run: id }, body: { courses } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['run', id] }),
  })
  const decide = useMutation({
    mutationFn: (decisions: Decided['decisions']) =>
      call('decideConflicts', { at: { run: id }, body: { decisions } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['run', id] }),
  })
  const toDecide = detail.tasks.filter(
    (task) => task.state === 'done' && (task.plan?.undecided ?? 0) > 0,
  )
  const takes = detail.order?.mode === 'undo' ? 'bring' : 'take'
  const mayUndo = may && isRollout && over && detail.counts.done > 0
  return (
    <>
      {held.length > 0 && (
        <div className="mt-3 flex flex-wrap items-center justify-between gap-3 border-l-4 border-straw-strand bg-straw-soft px-3 py-2">
          <p>
            {plural(held.length, 'course')} changed after the plan was approved, and the plan would
            be another now. Open it below; nothing was written there.
          </p>
          {may && (
            <Button shape="main" disabled={again.isPending} onClick={() => again.mutate(held)}>
              Approve {plural(held.length, 'new plan')}
            </Button>
          )}
        </div>
      )}
      {toDecide.length > 0 && (
        <p className="mt-3 border-l-4 border-straw-strand bg-straw-soft px-3 py-2">
          {plural(toDecide.length, 'course')} with something to decide: the rest is done there, and
          these places are as they were. Decide below; the plan for what you decided is made and
          waits for your approval.
        </p>
      )}
      {mayUndo && (
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <Button disabled={undo.isPending} onClick={() => undo.mutate([...chosen])}>
            {chosen.size > 0
              ? `Plan to ${takes} it back in ${plural(chosen.size, 'course')}`
              : `Plan to ${takes} it all back`}
          </Button>
          <span className="text-ink-2">
            What was edited since is kept and told. You see the plan first.
          </span>
        </div>
      )}
      <Problem error={undo.error ?? again.error ?? decide.error} />
      <table className="mt-4 w-full border border-line bg-sheet text-left">
        <thead>
          <tr className="border-b border-line-strong bg-band">
            {mayUndo && (
              <th scope="col" className="w-8 px-2">
                <span className="sr-only">Chosen</span>
              </th>
            )}
            <th scope="col" className="px-3 py-1">
              Course
            </th>
            <th scope="col" className="px-3">
              State
            </th>
            <th scope="col" className="px-3">
              {detail.state === 'planned' ? 'What it would do' : 'What came of it'}
            </th>
            <th scope="col" className="px-3">
              Attempts
            </th>
          </tr>
        </thead>
        <tbody>
          {tasks.map((task) => [
            <tr key={task.id} className="border-b border-line align-top">
              {mayUndo && (
                <td className="px-2 py-1">
                  {undoable(task.state) && (
                    <input
                      type="checkbox"
                      className="size-[24px] accent-tide"
                      aria-label={`Choose ${task.code} ${task.title}, ${apart.get(task.platformId)}`}
                      checked={chosen.has(task.course)}
                      onChange={() =>
                        setChosen((before) => {
                          const next = new Set(before)
                          if (!next.delete(task.course)) next.add(task.course)
                          return next
                        })
                      }
                    />
                  )}
                </td>
              )}
              <td className="px-3 py-1">
                <Link
                  className="underline decoration-line-strong underline-offset-2"
                  to={`/courses/${task.course}`}
                >
                  {task.code} {task.title}
                </Link>
                <span className="text-ink-2">, {apart.get(task.platformId)}</span>
              </td>
              <td
                className={`px-3 py-1 ${task.state === 'failed' || task.state === 'held' ? 'font-semibold text-rust' : ''}`}
              >
                {task.state === 'done' && (task.plan?.undecided ?? 0) > 0 ? (
                  <span className="font-semibold text-straw">{task.plan?.undecided} to decide</span>
                ) : (
                  taskWords[task.state]
                )}
              </td>
              <td className="px-3 py-1 text-ink-2">
                {task.renames.length > 0 && (
                  <Renames renames={task.renames} open={detail.state === 'planned'} />
                )}
                {task.mends.length > 0 && (
                  <Mends mends={task.mends} open={detail.state === 'planned'} />
                )}
                {task.message}
                {task.finishedAt && (
                  <>
                    {' '}
                    · <Moment at={task.finishedAt} />
                  </>
                )}
                {(task.state === 'held' || toDecide.includes(task)) && (
                  <Button
                    shape="word"
                    className="ml-2 py-0!"
                    aria-expanded={opened === task.course}
                    onClick={() => setOpened(opened === task.course ? null : task.course)}
                  >
                    {opened === task.course
                      ? 'fold'
                      : task.state === 'held'
                        ? 'see the new plan'
                        : 'decide'}
                  </Button>
                )}
              </td>
              <td className="px-3 py-1 text-ink-2">{task.attempts}</td>
            </tr>,
            opened === task.course && (
              <tr key={`${task.id} plan`}>
                <td colSpan={5} className="px-3 pb-3">
                  <CoursePlanView
                    run={id}
                    course={task.course}
                    decide={
                      may && toDecide.includes(task)
                        ? (instance, field, decision) =>
                            decide.mutate([{ course: task.course, instance, field, decision }])
                        : null
                    }
                  />
                </td>
              </tr>
            ),
          ])}
        </tbody>
      </table>
      {tasksIn(detail) > tasks.length && (
        <p className="mt-2 text-ink-2">
          {tasksIn(detail) - tasks.length} more are counted above and not listed; each course has
          its receipt under History.
        </p>
      )}
    </>
  )
}

/** Copies of courses on which plans are tried; opened on the platform, thrown away from here. */
export const Rehearsals = ({ detail }: { detail: RunDetail }) => {
  const client = useQueryClient()
  const list = useQuery({ queryKey: ['rehearsals'], queryFn: () => call('listRehearsals') })
  const refresh = () => client.invalidateQueries({ queryKey: ['rehearsals'] })
  const [course, setCourse] = useState('')
  const make = useMutation({
    mutationFn: () => call('rehearse', { at: { run: detail.id, course } }),
    onSuccess: refresh,
  })
  const discard = useMutation({
    mutationFn: (id: string) => call('discardRehearsal', { at: { rehearsal: id } }),
    onSuccess: refresh,
  })
  const apart = tellApart(detail.tasks)
  const ready = detail.tasks.filter((task) => task.plan?.state === 'ready')
  const here = (list.data ?? []).filter(({ course }) =>
    detail.tasks.some((task) => task.course === course),
  )
  if (ready.length === 0 && here.length === 0) return null
  return (
    <section className="mt-6">
      <h2 className="text-[18px]">Rehearse</h2>
      <p className="mt-1 flex flex-wrap items-center gap-2">
        Try the plan on a copy of{' '}
        <select
          aria-label="Course to rehearse on"
          className="border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink"
          value={course}
          onChange={(event) => setCourse(event.target.value)}
        >
          <option value="">which course?</option>
          {ready.map((task) => (
            <option key={task.course} value={task.course}>
              {task.code} {task.title}, {apart.get(task.platformId)}
            </option>
          ))}
        </select>
        <Button disabled={course === '' || make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? 'Making the copy …' : 'Rehearse'}
        </Button>
        <span className="text-ink-2">The course itself is not touched.</span>
      </p>
      <Problem error={make.error ?? discard.error} />
      <ul className="mt-1">
        {here.map((row) => {
          const task = detail.tasks.find((other) => other.course === row.course)
          return (
            <li key={row.id} className="flex flex-wrap gap-3 border-t border-line py-1">
              {task?.code} {task?.title}, {task && apart.get(task.platformId)},{' '}
              <Moment at={row.createdAt} />{' '}
              <a
                className="text-tide underline underline-offset-2"
                href={row.address}
                target="_blank"
                rel="noreferrer"
              >
                open the copy
              </a>
              <Button shape="word" className="py-0!" onClick={() => discard.mutate(row.id)}>
                throw it away
              </Button>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
