import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Tabs } from 'radix-ui'
import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import {
  modulesOfParts,
  columnOf,
  type CheckResult,
  type Finding,
  type FindingPlace,
  type Template,
} from '@wickerframe/core'
import type { Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { addressOf, call } from '../../api/client.ts'
import { useCourse, useRun } from '../../api/queries.ts'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { stateWords } from '../courses/CoursesScreen.tsx'
import { AsOf } from './AsOf.tsx'
import { CheckOnly } from './CheckOnly.tsx'
import { CourseCalendarTab } from './CourseCalendarTab.tsx'
import { CourseHistory, NewerVersion } from './CourseHistory.tsx'
import { CoursePages } from './CoursePages.tsx'
import { IntoTeaching } from './IntoTeaching.tsx'
import { IntoAnother, Merges } from './IntoAnother.tsx'
import { MendDialog } from './mend/MendDialog.tsx'
import { WaiverDialog } from './mend/WaiverDialog.tsx'
import { WhatToMend } from './mend/WhatToMend.tsx'
import { PairingView } from './pairing/PairingView.tsx'

/** Findings whose requirement stands in one column of the weave. */
const findingsAt = (result: CheckResult, template: Template, column: string): Finding[] => {
  const modules = modulesOfParts(template)
  const there = new Set(
    result.outcomes
      .filter((outcome) => columnOf(outcome, modules) === column)
      .map((outcome) => outcome.fingerprint),
  )
  return result.findings.flatMap((finding) => {
    const places = finding.places.filter((place) => there.has(place.fingerprint))
    return places.length > 0
      ? [{ ...finding, message: places[0]?.message ?? finding.message, places }]
      : []
  })
}

const columnTitle = (template: Template | null, column: string): string => {
  if (column.startsWith('week:')) return `Week ${column.slice(5)}`
  if (column.startsWith('module:'))
    return template?.parts.find((part) => part.key === column.slice(7))?.name ?? column.slice(7)
  return { home: 'the home page', names: 'names', course: 'the whole course' }[column] ?? column
}

const tab =
  'border-b-2 border-transparent py-1 data-[state=active]:border-tide data-[state=active]:font-semibold'

export const CourseScreen = ({ me }: { me: Me }) => {
  const { id = '' } = useParams()
  const { search, set } = useAddress()
  const asOf = search.get('asOf') ?? me.today
  const at = search.get('at')
  const shown = search.get('show') ?? 'mend'
  const client = useQueryClient()
  const query = useCourse(id, asOf)
  const [run, setRun] = useState<number | null>(null)
  const [mending, setMending] = useState<FindingPlace[] | null>(null)
  const [waiving, setWaiving] = useState<FindingPlace | null>(null)
  const check = useMutation({
    mutationFn: () => call('checkCourse', { at: { course: id }, body: { asOf } }),
    onSuccess: (answer) => setRun(answer.run),
  })
  const progress = useRun(run).data
  const running = run !== null && progress?.state !== 'done'
  useEffect(() => {
    if (progress?.state === 'done')
      void client.invalidateQueries({ predicate: (one) => one.queryKey[0] !== 'run' })
  }, [progress?.state, client])

  if (query.isPending)
    return (
      <Page title="Course">
        <Waiting what="the course" />
      </Page>
    )
  const course = query.data
  if (!course)
    return (
      <Page title="Course">
        <Problem error={query.error} />
      </Page>
    )
  const { result, snapshot, templateDocument } = course
  const showPage = (item: string) => set({ show: 'pages', page: item })
  const narrowed =
    result && templateDocument && at ? findingsAt(result, templateDocument, at) : null
  const openCount =
    result?.findings.filter(
      (finding) => finding.strength !== 'may' && finding.places.some((place) => !place.waived),
    ).length ?? 0
  const notChecked = (
    <p className="py-8 text-ink-2">
      {course.template
        ? 'It was not checked as of this date yet. Press “Read again”.'
        : 'It is under no template, so there is nothing to check. Plan a rollout to it, under Rollouts.'}
    </p>
  )
  const failedTask = progress?.tasks.find((task) => task.state === 'failed')
  return (
    <Page
      title={`${course.code} ${course.title}`}
      above={
        <>
          <Link className="underline" to="/courses">
            Courses
          </Link>{' '}
          ›{' '}
          <Link className="underline" to={`/courses?department=${course.department}`}>
            {course.department}
          </Link>
        </>
      }
      beside={
        <>
          <AsOf
            asOf={asOf}
            today={me.today}
            facts={course.facts}
            onChange={(date) => set({ asOf: date })}
          />
          {may(me, 'look after course') && (
            <Button
              shape="main"
              disabled={running || check.isPending}
              onClick={() => check.mutate()}
            >
              {running ? 'Reading …' : 'Read again'}
            </Button>
          )}
        </>
      }
    >
      <p className="text-ink-2">
        {course.instructors.map((person) => person.name).join(', ') || 'no instructor'} · class{' '}
        {course.classSections.length === 1 ? 'section' : 'sections'}{' '}
        {course.classSections.join(', ')} · {course.modality} · {course.weeks} weeks ·{' '}
        {course.template
          ? `${course.template.title}, version ${course.template.version}${course.template.newest > course.template.version ? ` (newest is ${course.template.newest})` : ''}`
          : stateWords[course.state]}
      </p>
      <Merges course={course} may={may(me, 'keep courses')} />
      <Problem error={check.error} />
      {failedTask && (
        <p role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
          {failedTask.message}
        </p>
      )}
      <Tabs.Root
        value={shown}
        onValueChange={(value) => set({ show: value, at: null })}
        className="mt-3"
      >
        <div className="flex flex-wrap items-baseline justify-between gap-x-6">
          <Tabs.List aria-label="Views of the course" className="flex gap-6">
            <Tabs.Trigger className={tab} value="mend">
              What to mend {openCount}
            </Tabs.Trigger>
            <Tabs.Trigger className={tab} value="pairing">
              Pairing
            </Tabs.Trigger>
            <Tabs.Trigger className={tab} value="pages">
              Pages
            </Tabs.Trigger>
            <Tabs.Trigger className={tab} value="calendar">
              Calendar
            </Tabs.Trigger>
            <Tabs.Trigger className={tab} value="history">
              History
            </Tabs.Trigger>
          </Tabs.List>
          <p className="text-ink-2" role="status">
            {result
              ? `${result.counts.met} of ${result.counts.requirements} requirements met · ${result.readiness === 'ready' ? 'ready' : result.readiness === 'ready-as-far-as-seen' ? `ready as far as seen; ${result.counts.cannotTell} unseen` : `${plural(result.counts.openMusts, 'open must')}, ${plural(result.counts.openShoulds, 'open should')}`}${result.counts.waived > 0 ? ` · ${result.counts.waived} waived` : ''}${result.readiness !== 'ready-as-far-as-seen' && result.counts.cannotTell > 0 ? ` · ${result.counts.cannotTell} unseen` : ''} · `
              : 'not checked as of this date · '}
            {course.readAt ? (
              <>
                read <Moment at={course.readAt} today={me.today} />
              </>
            ) : (
              'never read'
            )}
            {result && (
              <>
                {' '}
                ·{' '}
                <a
                  className="text-tide underline"
                  href={addressOf('checkReport', { at: { course: course.id }, query: { asOf } })}
                >
                  export
                </a>
              </>
            )}
          </p>
        </div>
        <Tabs.Content value="mend" className="mt-3">
          {narrowed && at && (
            <p className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-1">
              Only {columnTitle(templateDocument, at)}.{' '}
              <Button shape="word" onClick={() => set({ at: null })}>
                Show all
              </Button>
            </p>
          )}
          {result && snapshot && templateDocument ? (
            <WhatToMend
              me={me}
              courseId={course.id}
              course={snapshot}
              facts={course.facts}
              template={templateDocument}
              result={result}
              care={course.care}
              only={narrowed}
              onShowPage={showPage}
              onBegun={setRun}
            />
          ) : (
            notChecked
          )}
        </Tabs.Content>
        <Tabs.Content value="pairing" className="mt-3">
          {result && snapshot && templateDocument ? (
            <PairingView
              template={templateDocument}
              facts={course.facts}
              course={snapshot}
              result={result}
              care={course.care}
              courseId={course.id}
              me={me}
              onMend={setMending}
              onWaive={setWaiving}
              onShowPage={showPage}
            />
          ) : (
            notChecked
          )}
        </Tabs.Content>
        <Tabs.Content value="pages" className="mt-3">
          <CoursePages
            course={course}
            asOf={asOf}
            chosen={search.get('page') ?? ''}
            onChoose={showPage}
          />
        </Tabs.Content>
        <Tabs.Content value="calendar" className="mt-3">
          <CourseCalendarTab key={course.id} course={course} me={me} />
        </Tabs.Content>
        <Tabs.Content value="history" className="mt-3">
          {may(me, 'keep courses') && (
            <>
              <NewerVersion course={course} />
              <CheckOnly course={course} />
              {course.status === 'preparing' && <IntoTeaching course={course} />}
              {(course.status === 'teaching' || course.status === 'preparing') && (
                <IntoAnother course={course} />
              )}
            </>
          )}
          <CourseHistory course={course} />
        </Tabs.Content>
      </Tabs.Root>
      {mending && result && snapshot && templateDocument && (
        <MendDialog
          places={mending}
          course={snapshot}
          facts={course.facts}
          template={templateDocument}
          result={result}
          courseId={course.id}
          onClose={() => setMending(null)}
          onBegun={(begun) => {
            setMending(null)
            setRun(begun)
          }}
        />
      )}
      {waiving && (
        <WaiverDialog
          courseId={course.id}
          place={waiving}
          mayGive={may(me, 'decide waivers')}
          onClose={() => setWaiving(null)}
        />
      )}
    </Page>
  )
}
