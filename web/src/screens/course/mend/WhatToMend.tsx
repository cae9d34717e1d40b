import { useMemo, useState } from 'react'
import {
  everyCourseItem,
  type CheckResult,
  type Course,
  type Facts,
  type Finding,
  type FindingPlace,
  type Template,
} from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { Choice, plural } from '../../../controls/controls.tsx'
import { useAddress } from '../../../shell/useAddress.ts'
import type { FindingActions, Reply } from './actions.ts'
import { GroupOfFindings } from './GroupOfFindings.tsx'
import {
  grouped,
  groupings,
  homeTitle,
  isShared,
  mineFirst,
  sorted,
  type Grouping,
} from './grouping.ts'
import { ManyActs } from './ManyActs.tsx'
import { MendDialog } from './MendDialog.tsx'
import { Notes } from './Notes.tsx'
import { ReplyDialog } from './ReplyDialog.tsx'
import { Untold } from './Untold.tsx'
import { useChosen } from './useChosen.ts'
import { WaiverDialog } from './WaiverDialog.tsx'

const byWords: Readonly<Record<Grouping, string>> = {
  page: 'by page',
  person: 'by person',
  rule: 'by rule',
}

/** What is to be mended in a course: a line for each finding, by page, by person or by rule; each with its acts, and acts for several at once. */
export const WhatToMend = ({
  me,
  courseId,
  course,
  facts,
  template,
  result,
  care,
  only,
  onShowPage,
  onBegun,
}: {
  me: MeInCourse
  courseId: number
  course: Course
  facts: Facts
  template: Template
  result: CheckResult
  care: CourseCare
  /** Findings of one column of the weave, where the reader came from there. */
  only: Finding[] | null
  onShowPage: (itemId: string) => void
  onBegun: (run: number) => void
}) => {
  const { search, set } = useAddress()
  const by = groupings.find((grouping) => grouping === search.get('by')) ?? 'page'
  const strength = search.get('strength')
  const fresh = search.get('new') === '1'
  const mine = search.get('mine') === '1'
  const people = [...facts.instructors, ...facts.assistants]
  const [mending, setMending] = useState<FindingPlace[] | null>(null)
  const [waiving, setWaiving] = useState<FindingPlace[] | null>(null)
  const [reply, setReply] = useState<Reply | null>(null)
  const chosen = useChosen()
  const { open, waived, information } = sorted(only ? { ...result, findings: only } : result)
  const freshPlaces = new Set(care.since?.fresh)
  const shown = open.filter(
    (finding) =>
      (strength === null || finding.strength === strength) &&
      (!mine || finding.owner === me.email) &&
      (!fresh || finding.places.some((place) => freshPlaces.has(place.fingerprint))),
  )
  const pages = useMemo(
    () =>
      new Set(everyCourseItem(course).flatMap(({ item }) => (item.html === null ? [] : [item.id]))),
    [course],
  )
  const actions: FindingActions = {
    courseId,
    me,
    people,
    asOf: result.asOf,
    care,
    pages,
    onFillIn: (page) => set({ show: 'fill-in', page }),
    onMend: setMending,
    onWaive: setWaiving,
    onReply: setReply,
    onShowPage,
  }
  const groups = grouped(mineFirst(shown, me.email), by, { template, course, people })
  const lines = groups.flatMap(({ findings }) => findings)
  const effort = shown.reduce((sum, finding) => sum + finding.effortMinutes, 0)
  const mayAct = may(me, 'look after course')
  const home = course.homePage
  return (
    <>
      <div className="sticky top-0 z-10 flex min-h-10 flex-wrap items-center gap-2 bg-linen py-1">
        {groupings.map((grouping) => (
          <Choice
            key={grouping}
            pressed={by === grouping}
            onClick={() => set({ by: grouping === 'page' ? null : grouping })}
          >
            {byWords[grouping]}
          </Choice>
        ))}
        <span className="mx-1 text-ink-3" aria-hidden>
          ·
        </span>
        <Choice
          pressed={strength === 'must'}
          onClick={() => set({ strength: strength === 'must' ? null : 'must' })}
        >
          only musts
        </Choice>
        {(mine || isShared(open, me.email)) && (
          <Choice pressed={mine} onClick={() => set({ mine: mine ? null : '1' })}>
            only mine
          </Choice>
        )}
        {care.since && care.since.fresh.length > 0 && (
          <Choice pressed={fresh} onClick={() => set({ new: fresh ? null : '1' })}>
            only new ones
          </Choice>
        )}
        {shown.length > 0 && (
          <span className="text-ink-2">
            {plural(shown.length, 'finding')}, about {effort} min
          </span>
        )}
        {mayAct && (
          <ManyActs
            chosen={lines.filter(chosen.has)}
            shown={shown}
            actions={actions}
            onLetGo={chosen.letGo}
          />
        )}
      </div>
      {shown.length === 0 && (
        <p className="py-6 text-ink-2">
          {open.length === 0
            ? result.counts.cannotTell > 0
              ? `Nothing to mend as far as seen; ${result.counts.cannotTell} could not be told.`
              : 'Nothing to mend: every requirement is met.'
            : 'Nothing to mend under these filters.'}
        </p>
      )}
      {groups.map((group) => (
        <GroupOfFindings
          key={group.title}
          group={group}
          actions={actions}
          chosen={mayAct ? chosen : null}
          home={by === 'page' && group.title === homeTitle && pages.has(home ?? '') ? home : null}
        />
      ))}
      <Untold result={result} courseId={courseId} mayAct={may(me, 'decide for course')} />
      <Notes
        courseId={courseId}
        me={me}
        care={care}
        result={result}
        waived={waived}
        information={information}
      />
      {mending && (
        <MendDialog
          places={mending}
          course={course}
          facts={facts}
          template={template}
          result={result}
          courseId={courseId}
          onClose={() => setMending(null)}
          onBegun={(run) => {
            setMending(null)
            chosen.letGo()
            onBegun(run)
          }}
        />
      )}
      {waiving && (
        <WaiverDialog
          courseId={courseId}
          places={waiving}
          today={me.today}
          mayGive={may(me, 'decide waivers')}
          onClose={() => setWaiving(null)}
        />
      )}
      {reply && (
        <ReplyDialog
          reply={reply}
          courseId={courseId}
          asOf={result.asOf}
          today={me.today}
          onClose={() => setReply(null)}
        />
      )}
    </>
  )
}
