import { useVirtualizer } from '@tanstack/react-virtual'
import { useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { CourseState, CourseSummary, Me } from '@wickerframe/contract'
import { may, seesWholeCollege } from '@wickerframe/contract/capabilities'
import { useCourses } from '../../api/queries.ts'
import { Button, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { Messages } from '../../shell/Messages.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { CourseValues, MakeCourses } from './CourseTables.tsx'
import { RosterImport } from './RosterImport.tsx'

export const stateWords: Record<CourseState, string> = {
  shell: 'a shell',
  deployed: 'deployed',
  'other-content': 'holds other content',
  'checked-only': 'checked only',
  'not-read': 'not read yet',
}

const readinessWords = (course: CourseSummary): string => {
  if (!course.check) return 'not checked'
  const { counts, readiness } = course.check
  if (readiness === 'ready') return 'ready'
  if (readiness === 'ready-as-far-as-seen')
    return `ready as far as seen; ${counts.cannotTell} unseen`
  return plural(counts.openMusts, 'open must')
}

const filters: readonly { name: string; label: string; of: (course: CourseSummary) => string[] }[] =
  [
    { name: 'department', label: 'Department', of: (course) => [course.department] },
    {
      name: 'instructor',
      label: 'Instructor',
      of: (course) => course.instructors.map((person) => person.name),
    },
    { name: 'modality', label: 'Modality', of: (course) => [course.modality] },
    { name: 'status', label: 'Status', of: (course) => [course.status] },
    { name: 'state', label: 'State', of: (course) => [stateWords[course.state]] },
  ]

const rowHeight = 34
const columns =
  'grid grid-cols-[5.5rem_minmax(9rem,1.4fr)_5.5rem_minmax(8rem,1fr)_9.5rem_minmax(8rem,1fr)_8rem] whitespace-nowrap gap-3 items-center px-3'

export const CoursesScreen = ({ me }: { me: Me }) => {
  const courses = useCourses()
  const { search, set } = useAddress()
  const [importing, setImporting] = useState(false)
  const [table, setTable] = useState<'make' | 'values' | null>(null)
  const word = search.get('find') ?? ''
  const shown = useMemo(
    () =>
      (courses.data ?? []).filter(
        (course) =>
          filters.every(
            (filter) =>
              !search.get(filter.name) || filter.of(course).includes(search.get(filter.name) ?? ''),
          ) &&
          `${course.code} ${course.title} ${course.platformId}`
            .toLowerCase()
            .includes(word.toLowerCase()),
      ),
    [courses.data, search, word],
  )
  const list = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => list.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  })
  const mayChange = may(me, 'keep courses')
  const title = seesWholeCollege(me) ? 'Courses' : 'Your courses'
  if (courses.isPending)
    return (
      <Page title={title}>
        <Waiting what="the courses" />
      </Page>
    )
  return (
    <Page
      title={title}
      beside={
        mayChange && (
          <>
            <Button onClick={() => setImporting(true)}>Import roster</Button>
            <Button onClick={() => setTable('make')}>Make courses</Button>
            <Button onClick={() => setTable('values')}>Values for courses</Button>
            <Link
              to={`/rollouts/new?courses=${shown
                .slice(0, 2000)
                .map((course) => course.id)
                .join('.')}`}
              className="rounded-sm border border-tide bg-tide px-3 py-1.5 leading-tight font-semibold text-sheet"
            >
              Plan rollout to these {shown.length}
            </Link>
          </>
        )
      }
    >
      <Messages about="course" />
      <Problem error={courses.error} />
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <label className="flex flex-col gap-0.5 text-ink-2">
          <span>Find</span>
          <input
            type="search"
            className="border border-line-strong bg-sheet px-2 py-1 text-ink"
            value={word}
            onChange={(event) => set({ find: event.target.value })}
            placeholder="code, title or id"
          />
        </label>
        {filters.map((filter) => (
          <Pick
            key={filter.name}
            label={filter.label}
            value={search.get(filter.name) ?? ''}
            onChange={(event) => set({ [filter.name]: event.target.value })}
            options={[
              { value: '', text: 'all' },
              ...[...new Set((courses.data ?? []).flatMap(filter.of))]
                .sort()
                .map((value) => ({ value, text: value })),
            ]}
          />
        ))}
        <p className="ml-auto text-ink-2" role="status">
          {shown.length} of {plural(courses.data?.length ?? 0, 'course')}
        </p>
      </div>
      {courses.data?.length === 0 ? (
        <p className="py-10 text-ink-2">
          {mayChange
            ? 'There are no courses yet. Import a roster file: one line for each class section, with the id of its course on the platform.'
            : 'No course is yours to see yet.'}
        </p>
      ) : (
        <div
          role="table"
          aria-label="Courses"
          aria-rowcount={shown.length + 1}
          className="mt-3 border border-line bg-sheet"
        >
          <div
            role="row"
            className={`${columns} border-b border-line-strong bg-band py-1.5 font-semibold`}
          >
            {['Code', 'Title', 'Sections', 'Instructor', 'Modality', 'Template', 'Check'].map(
              (name) => (
                <span role="columnheader" key={name}>
                  {name}
                </span>
              ),
            )}
          </div>
          <div
            ref={list}
            className="max-h-[62vh] overflow-y-auto"
            tabIndex={0}
            role="rowgroup"
            aria-label="Rows"
          >
            <div style={{ height: rows.getTotalSize(), position: 'relative' }} role="presentation">
              {rows.getVirtualItems().map((row) => {
                const course = shown[row.index]
                if (!course) return null
                return (
                  <div
                    role="row"
                    aria-rowindex={row.index + 2}
                    key={course.id}
                    className={`${columns} absolute w-full border-b border-line hover:bg-paper`}
                    style={{ height: rowHeight, transform: `translateY(${row.start}px)` }}
                  >
                    <span role="cell" className="font-mono text-[12.5px]">
                      {course.code}
                    </span>
                    <span role="cell" className="truncate">
                      <Link
                        className="underline decoration-line-strong underline-offset-2"
                        to={`/courses/${course.id}`}
                      >
                        {course.title}
                      </Link>
                      {course.status === 'teaching' ? '' : ` (${course.status})`}
                    </span>
                    <span role="cell" className="truncate">
                      {course.classSections.join(', ')}
                    </span>
                    <span role="cell" className="truncate">
                      {course.instructors.map((person) => person.name).join(', ') || 'nobody'}
                    </span>
                    <span role="cell">
                      {course.modality}, {course.weeks} wks
                    </span>
                    <span role="cell" className="truncate">
                      {course.template
                        ? `${course.template.title} ${course.template.version}`
                        : stateWords[course.state]}
                    </span>
                    <span
                      role="cell"
                      className={
                        course.check?.readiness === 'not-ready'
                          ? 'font-semibold text-rust'
                          : 'text-ink-2'
                      }
                    >
                      {readinessWords(course)}
                    </span>
                  </div>
                )
              })}
            </div>
          </div>
        </div>
      )}
      <MakeCourses
        open={table === 'make'}
        onOpenChange={(open) => setTable(open ? 'make' : null)}
      />
      <CourseValues
        open={table === 'values'}
        onOpenChange={(open) => setTable(open ? 'values' : null)}
      />
      <RosterImport open={importing} onOpenChange={setImporting} />
    </Page>
  )
}
