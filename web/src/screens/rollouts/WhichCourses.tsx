import { useMemo, useState } from 'react'
import { modalities } from '@wickerframe/core'
import type { CourseSummary } from '@wickerframe/contract'
import { Button, plural } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { useAddress } from '../../shell/useAddress.ts'
import { courseSorts, sortWords, type CourseSort, type SortedCourse } from './chooseCourses.ts'
import { leavingWords } from './planWords.ts'

export interface Choosing {
  sorted: readonly SortedCourse[]
  /** Ids of courses. */
  chosen: ReadonlySet<number>
  onChoose: (ids: Iterable<number>) => void
}

const isOdd = ({ odd }: SortedCourse): boolean => odd !== null

/** Which courses a rollout goes to: found, sorted by what they are, and what is odd left out until it is ticked. */
export const WhichCourses = ({
  sorted,
  chosen,
  onChoose,
  template,
  fitting,
}: Choosing & {
  /** Key of the template that is brought; empty while none is chosen. */
  template: string
  /** Ids of courses that the standing rules give it. */
  fitting: readonly number[]
}) => {
  const { search, set } = useAddress()
  const [find, setFind] = useState('')
  const department = search.get('department') ?? ''
  const modality = search.get('modality') ?? ''
  const courses = useMemo(() => sorted.map(({ course }) => course), [sorted])
  const apart = useMemo(() => tellApart(courses), [courses])
  const offered = sorted.filter(({ sort }) => sort !== 'out')
  const shown = offered.filter(
    ({ course }) =>
      (department === '' || course.department === department) &&
      (modality === '' || course.modality === modality) &&
      `${course.code} ${course.title} ${apart.get(course.platformId)} ${course.instructors.map(({ name }) => name).join(' ')}`
        .toLowerCase()
        .includes(find.toLowerCase()),
  )
  const plain = new Set(
    sorted.filter((sortedCourse) => !isOdd(sortedCourse)).map(({ course }) => course.id),
  )
  return (
    <>
      <section className="mt-2 border border-line bg-sheet" aria-label="Which courses">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-3 py-1.5">
          <h2 className="text-[15px]">
            Which courses: {chosen.size} of {offered.length} chosen
          </h2>
          <Filter
            label="Department"
            value={department}
            options={[...new Set(courses.map((course) => course.department))].sort()}
            onChange={(value) => set({ department: value })}
          />
          <Filter
            label="Modality"
            value={modality}
            options={modalities}
            onChange={(value) => set({ modality: value })}
          />
          <label className="flex gap-1 text-ink-2">
            Find{' '}
            <input
              className="w-40 border border-line-strong bg-sheet px-1 text-ink"
              value={find}
              onChange={(event) => setFind(event.target.value)}
            />
          </label>
          <span className="ml-auto flex flex-wrap gap-4">
            {fitting.length > 0 && (
              <Button shape="word" onClick={() => onChoose(fitting.filter((id) => plain.has(id)))}>
                the {fitting.length} the standing rules give it
              </Button>
            )}
            <Button
              shape="word"
              onClick={() =>
                onChoose([
                  ...chosen,
                  ...shown.map(({ course }) => course.id).filter((id) => plain.has(id)),
                ])
              }
            >
              all shown that are not odd
            </Button>
            <Button shape="word" onClick={() => onChoose([])}>
              none
            </Button>
          </span>
        </div>
        <div
          className="max-h-72 overflow-y-auto"
          tabIndex={0}
          role="region"
          aria-label="Courses to choose from"
        >
          {courseSorts.map((sort) => {
            const those = shown.filter((sortedCourse) => sortedCourse.sort === sort)
            return (
              those.length > 0 && (
                <CoursesOfSort
                  key={sort}
                  sort={sort}
                  sorted={those}
                  chosen={chosen}
                  onChoose={onChoose}
                  template={template}
                  apart={apart}
                />
              )
            )
          })}
        </div>
      </section>
      <OddOnes
        odd={sorted.filter(
          (sortedCourse) => isOdd(sortedCourse) && chosen.has(sortedCourse.course.id),
        )}
        apart={apart}
      />
    </>
  )
}

const Filter = ({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly string[]
  onChange: (value: string) => void
}) => (
  <label className="flex gap-1 text-ink-2">
    {label}{' '}
    <select
      className="border border-line-strong bg-sheet px-1 text-ink"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">all</option>
      {options.map((option) => (
        <option key={option}>{option}</option>
      ))}
    </select>
  </label>
)

const CoursesOfSort = ({
  sort,
  sorted,
  chosen,
  onChoose,
  template,
  apart,
}: Choosing & { sort: CourseSort; template: string; apart: ReadonlyMap<string, string> }) => {
  const reasons = new Set(sorted.map(({ odd }) => odd))
  const toggle = (id: number) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    onChoose(next)
  }
  return (
    <fieldset className="border-b border-line px-3 py-1">
      <legend className="sr-only">{sortWords[sort]}</legend>
      <p className="flex flex-wrap items-baseline gap-3 font-semibold">
        {sortWords[sort]}: {sorted.length}
        {sorted.every(isOdd) ? (
          <span className="font-normal text-straw">
            left out until you tick them{reasons.size === 1 ? `: ${sorted[0]?.odd}` : ''}
          </span>
        ) : (
          <Button
            shape="word"
            className="py-0! font-normal"
            onClick={() => onChoose([...chosen, ...sorted.map(({ course }) => course.id)])}
          >
            all {sorted.length}
          </Button>
        )}
      </p>
      <ul className="grid grid-cols-2 lg:grid-cols-3">
        {sorted.map(({ course, odd }) => (
          <li key={course.id}>
            <label className="flex gap-2 px-1 py-0.5">
              <input
                type="checkbox"
                className="size-[24px] shrink-0 accent-tide"
                checked={chosen.has(course.id)}
                onChange={() => toggle(course.id)}
              />
              <span className="min-w-0">
                <span className="flex gap-1">
                  <span className="truncate" title={course.title}>
                    {course.code} {course.title}
                  </span>
                  <span className="shrink-0 text-ink-2">{apart.get(course.platformId)}</span>
                </span>
                <span className="block text-ink-3">
                  {nowUnder(course, template)}
                  {odd !== null && sort === 'misfit' && reasons.size > 1 ? `; ${odd}` : ''}
                </span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  )
}

const nowUnder = ({ modality, template: now }: CourseSummary, template: string): string =>
  [
    modality,
    ...(now ? [`version ${now.version}${now.key === template ? '' : ` of ${now.title}`}`] : []),
  ].join(', ')

/** Says once more what is odd about those that were ticked all the same. */
const OddOnes = ({
  odd,
  apart,
}: {
  odd: readonly SortedCourse[]
  apart: ReadonlyMap<string, string>
}) =>
  odd.length > 0 && (
    <p className="mt-2 text-straw">
      {leavingWords(
        odd
          .filter(({ sort }) => sort === 'other-template')
          .map(({ course }) => course.template?.title ?? null),
      ).map((words) => (
        <strong key={words} className="block font-semibold">
          {words}.
        </strong>
      ))}
      {plural(odd.length, 'odd course')} among those chosen:{' '}
      {odd
        .slice(0, 3)
        .map(({ course, odd: why }) => `${course.code} ${apart.get(course.platformId)} (${why})`)
        .join('; ')}
      {odd.length > 3 ? ' …' : ''}
    </p>
  )
