import { useState } from 'react'
import { Link } from 'react-router'
import type { ShapeGroup } from '@wickerframe/contract'
import { Button, plural } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { CoursePlanView, type Decide } from './CoursePlanView.tsx'
import { consequenceWords, doesWords, lineWords } from './planWords.ts'

const doing = new Set(['create', 'set', 'change', 'restore', 'move', 'adopt', 'remove', 'conflict'])

/** “41 courses: the same 6 changes” */
const headline = ({ courses, summary }: ShapeGroup): string => {
  const many = plural(courses.length, 'course')
  if (summary.state !== 'ready') return `${many}: ${summary.reason}`
  const lines = summary.lines.filter((line) => doing.has(line.does))
  const parts = lines.reduce((sum, line) => sum + line.count, 0)
  return `${many}: ${courses.length > 1 ? 'the same ' : ''}${plural(parts, 'change')}${summary.undecided > 0 ? `, ${plural(summary.undecided, 'conflict')} to decide in each` : ''}`
}

interface Common {
  run: number
  leftOut: ReadonlySet<number>
  /** Leaves courses out of the approval, or takes them in again; null where that is not theirs to say. */
  onLeaveOut: ((courses: readonly number[], out: boolean) => void) | null
  decideIn: ((course: number) => Decide) | null
}

const GroupView = ({
  run,
  group,
  leftOut,
  onLeaveOut,
  decideIn,
  open,
  setOpen,
  course,
  setCourse,
}: Common & {
  group: ShapeGroup
  open: boolean
  setOpen: (open: boolean) => void
  course: number | null
  setCourse: (course: number | null) => void
}) => {
  const { summary, courses } = group
  const apart = tellApart(courses)
  const isReady = summary.state === 'ready'
  const included = courses.filter((course) => !leftOut.has(course.course)).length
  const lines = summary.lines.filter((line) => doing.has(line.does))
  return (
    <li className="py-3">
      <div className="flex items-start gap-3">
        {onLeaveOut && (
          <input
            type="checkbox"
            className="mt-0.5 size-[24px] shrink-0 accent-tide"
            aria-label={`Include ${headline(group)}`}
            disabled={!isReady}
            checked={isReady && included > 0}
            ref={(box) => {
              if (box) box.indeterminate = isReady && included > 0 && included < courses.length
            }}
            onChange={(event) =>
              onLeaveOut(
                courses.map((course) => course.course),
                !event.target.checked,
              )
            }
          />
        )}
        <div className="min-w-0 grow">
          <div className="flex flex-wrap items-baseline justify-between gap-3">
            <h3 className="text-[16px]">{headline(group)}</h3>
            <Button shape="word" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open
                ? 'fold the courses'
                : courses.length === 1
                  ? 'open the course'
                  : `open the ${courses.length} courses`}
            </Button>
          </div>
          {isReady && (
            <dl className="mt-1 grid grid-cols-[7rem_1fr] gap-x-3">
              {[...new Set(lines.map((line) => line.does))].map((does) => (
                <div key={does} className="contents">
                  <dt className={does === 'conflict' ? 'font-semibold text-rust' : 'font-semibold'}>
                    {doesWords[does]}
                  </dt>
                  <dd className="line-clamp-3 text-ink-2">
                    {lines
                      .filter((line) => line.does === does)
                      .map(lineWords)
                      .join('; ')}
                  </dd>
                </div>
              ))}
            </dl>
          )}
          {summary.consequences.length > 0 && (
            <ul className="mt-1 list-disc pl-5 text-straw">
              {summary.consequences.map((consequence) => (
                <li key={consequence.code}>{consequenceWords(consequence, courses.length > 1)}.</li>
              ))}
            </ul>
          )}
          {open && (
            <ul className="mt-2">
              {courses.map((planned) => (
                <li key={planned.course} className="border-t border-line py-1">
                  <div className="flex items-center gap-3">
                    {onLeaveOut && courses.length > 1 && (
                      <input
                        type="checkbox"
                        className="size-[24px] accent-tide"
                        aria-label={`Include ${planned.code} ${planned.title}, ${apart.get(planned.platformId)}`}
                        disabled={!isReady}
                        checked={isReady && !leftOut.has(planned.course)}
                        onChange={(event) => onLeaveOut([planned.course], !event.target.checked)}
                      />
                    )}
                    <Link
                      className="underline decoration-line-strong underline-offset-2"
                      to={`/courses/${planned.course}`}
                    >
                      {planned.code} {planned.title}
                    </Link>{' '}
                    <span className="text-ink-2">{apart.get(planned.platformId)}</span>
                    {isReady && (
                      <Button
                        shape="word"
                        className="ml-auto"
                        aria-expanded={course === planned.course}
                        onClick={() => setCourse(course === planned.course ? null : planned.course)}
                      >
                        {course === planned.course ? 'fold' : 'see the differences'}
                      </Button>
                    )}
                  </div>
                  {course === planned.course && (
                    <CoursePlanView
                      run={run}
                      course={planned.course}
                      decide={decideIn?.(planned.course) ?? null}
                    />
                  )}
                </li>
              ))}
            </ul>
          )}
        </div>
      </div>
    </li>
  )
}

/**
 * The plans of a rollout, those that look alike together, so that shapes are read and not hundreds of lists. What is open stays
 * open by its course when a decision makes a plan look like others.
 */
export const Shapes = ({ groups, ...rest }: Common & { groups: readonly ShapeGroup[] }) => {
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set())
  const [course, setCourse] = useState<number | null>(null)
  return (
    <ul className="divide-y divide-line border-y border-line">
      {groups.map((group) => (
        <GroupView
          key={group.courses[0]?.course}
          group={group}
          course={course}
          setCourse={setCourse}
          open={group.courses.some((course) => opened.has(course.course))}
          {...rest}
          setOpen={(open) =>
            setOpened((before) => {
              const next = new Set(before)
              for (const course of group.courses)
                if (open) next.add(course.course)
                else next.delete(course.course)
              return next
            })
          }
        />
      ))}
    </ul>
  )
}
