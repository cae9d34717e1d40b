import { Tabs } from 'radix-ui'
import { lazy, Suspense, useState } from 'react'
import { columnTitle, findingsAtColumn, type FindingPlace } from '@wickerframe/core'
import type { CourseDetail, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { addressOf } from '../../api/client.ts'
import { Button, Moment, Waiting } from '../../controls/controls.tsx'
import { ReportMenu } from '../../controls/ReportMenu.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { CheckOnly } from './CheckOnly.tsx'
import { CourseCalendarTab } from './CourseCalendarTab.tsx'
import { CourseStanding } from './CourseStanding.tsx'
import { CourseHistory, NewerVersion } from './CourseHistory.tsx'
import { CoursePages } from './CoursePages.tsx'
import { IntoAnother } from './IntoAnother.tsx'
import { IntoTeaching } from './IntoTeaching.tsx'
import { MendDialog } from './mend/MendDialog.tsx'
import { WaiverDialog } from './mend/WaiverDialog.tsx'
import { WhatToMend } from './mend/WhatToMend.tsx'
import { CoursePeopleTab } from './people/CoursePeopleTab.tsx'
import { PairingView } from './pairing/PairingView.tsx'
import { openFindings, standingWords } from './standingWords.ts'

/** With its editor of texts, which nobody needs who only reads. */
const FillInTab = lazy(async () => ({
  default: (await import('./fillIn/FillInTab.tsx')).FillInTab,
}))

const tab =
  'border-b-2 border-transparent py-1 data-[state=active]:border-tide data-[state=active]:font-semibold'

/** The views of one course: what to mend, pairing, pages, calendar, people, history. */
export const CourseTabs = ({
  course,
  me,
  asOf,
  onBegun,
}: {
  course: CourseDetail
  me: MeInCourse
  asOf: string
  /** A run was begun for the course. */
  onBegun: (run: number) => void
}) => {
  const { search, set } = useAddress()
  return (
    <Tabs.Root
      value={search.get('show') ?? 'mend'}
      onValueChange={(value) => set({ show: value, at: null })}
      className="mt-3"
    >
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <Tabs.List aria-label="Views of the course" className="flex gap-6">
          {[
            ['mend', `What to mend ${openFindings(course.result)}`],
            ...(may(me, 'look after course') ? [['fill-in', 'Fill in']] : []),
            ['pairing', 'Pairing'],
            ['pages', 'Pages'],
            ['calendar', 'Calendar'],
            ['people', 'People'],
            ['history', 'History'],
          ].map(([value = '', title]) => (
            <Tabs.Trigger key={value} className={tab} value={value}>
              {title}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <Standing course={course} me={me} asOf={asOf} />
      </div>
      <Tabs.Content value="mend" className="mt-3">
        <Mending course={course} me={me} onBegun={onBegun} />
      </Tabs.Content>
      {may(me, 'look after course') && (
        <Tabs.Content value="fill-in" className="mt-3">
          <Suspense fallback={<Waiting what="what the course asks" />}>
            <FillInTab key={course.id} course={course} me={me} onBegun={onBegun} />
          </Suspense>
        </Tabs.Content>
      )}
      <Tabs.Content value="pairing" className="mt-3">
        <Pairing course={course} me={me} onBegun={onBegun} />
      </Tabs.Content>
      <Tabs.Content value="pages" className="mt-3">
        <CoursePages
          course={course}
          asOf={asOf}
          chosen={search.get('page') ?? ''}
          onChoose={(item) => set({ show: 'pages', page: item })}
        />
      </Tabs.Content>
      <Tabs.Content value="calendar" className="mt-3">
        <CourseCalendarTab key={course.id} course={course} me={me} />
      </Tabs.Content>
      <Tabs.Content value="people" className="mt-3">
        <CoursePeopleTab key={course.id} course={course} me={me} />
      </Tabs.Content>
      <Tabs.Content value="history" className="mt-3">
        {may(me, 'keep courses') && <Keeping course={course} />}
        <CourseStanding courseId={course.id} today={me.today} />
        <CourseHistory course={course} />
      </Tabs.Content>
    </Tabs.Root>
  )
}

const Standing = ({ course, me, asOf }: { course: CourseDetail; me: MeInCourse; asOf: string }) => (
  <p className="text-ink-2">
    <span role="status">{standingWords(course.result)}</span> ·{' '}
    {course.readAt ? (
      <>
        read <Moment at={course.readAt} today={me.today} />
      </>
    ) : (
      'never read'
    )}
    {course.result && (
      <>
        {' '}
        ·{' '}
        <ReportMenu
          label="report"
          addressOf={(format) =>
            addressOf('courseReport', { at: { course: course.id }, query: { asOf, format } })
          }
        />
      </>
    )}
  </p>
)

const NotChecked = ({ course }: { course: CourseDetail }) => (
  <p className="py-8 text-ink-2">
    {course.template
      ? 'It was not checked as of this date yet. Press “Read again”.'
      : 'It is under no template, so there is nothing to check. Plan a rollout to it, under Rollouts.'}
  </p>
)

interface View {
  course: CourseDetail
  me: MeInCourse
  onBegun: (run: number) => void
}

const Mending = ({ course, me, onBegun }: View) => {
  const { search, set } = useAddress()
  const { result, snapshot, templateDocument } = course
  if (!result || !snapshot || !templateDocument) return <NotChecked course={course} />
  const at = search.get('at')
  return (
    <>
      {at && (
        <p className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-1">
          Only {columnTitle(templateDocument, at)}.{' '}
          <Button shape="word" onClick={() => set({ at: null })}>
            Show all
          </Button>
        </p>
      )}
      <WhatToMend
        me={me}
        courseId={course.id}
        course={snapshot}
        facts={course.facts}
        template={templateDocument}
        result={result}
        care={course.care}
        only={at ? findingsAtColumn(result, templateDocument, at) : null}
        onShowPage={(item) => set({ show: 'pages', page: item })}
        onBegun={onBegun}
      />
    </>
  )
}

const Pairing = ({ course, me, onBegun }: View) => {
  const { set } = useAddress()
  const [mending, setMending] = useState<FindingPlace[] | null>(null)
  const [waiving, setWaiving] = useState<FindingPlace | null>(null)
  const { result, snapshot, templateDocument } = course
  if (!result || !snapshot || !templateDocument) return <NotChecked course={course} />
  return (
    <>
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
        onShowPage={(item) => set({ show: 'pages', page: item })}
      />
      {mending && (
        <MendDialog
          places={mending}
          course={snapshot}
          facts={course.facts}
          template={templateDocument}
          result={result}
          courseId={course.id}
          onClose={() => setMending(null)}
          onBegun={(run) => {
            setMending(null)
            onBegun(run)
          }}
        />
      )}
      {waiving && (
        <WaiverDialog
          courseId={course.id}
          places={[waiving]}
          today={me.today}
          mayGive={may(me, 'decide waivers')}
          onClose={() => setWaiving(null)}
        />
      )}
    </>
  )
}

/** What those who keep courses may do with it as a whole. */
const Keeping = ({ course }: { course: CourseDetail }) => (
  <>
    <NewerVersion course={course} />
    <CheckOnly course={course} />
    {course.status === 'preparing' && <IntoTeaching course={course} />}
    {(course.status === 'teaching' || course.status === 'preparing') && (
      <IntoAnother course={course} />
    )}
  </>
)
