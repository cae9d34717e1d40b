import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Tabs } from 'radix-ui'
import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { everyCourseItem, modulesOfParts, columnOf, type CheckResult, type Finding, type Template } from '@wickerframe/core'
import type { CourseDetail, Me, Receipt } from '@wickerframe/contract'
import { post } from '../../api/client.ts'
import { useCourse, useRun } from '../../api/queries.ts'
import { Button, Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { stateWords } from '../courses/CoursesScreen.tsx'
import { doesWords } from '../rollouts/planWords.ts'
import { CheckOnly } from './CheckOnly.tsx'
import { CourseCalendarTab } from './CourseCalendarTab.tsx'
import { Findings, Untold } from './Findings.tsx'
import { IntoTeaching } from './IntoTeaching.tsx'
import { IntoAnother } from './IntoAnother.tsx'
import { PairingView } from './PairingView.tsx'

/** Findings whose requirement stands in one column of the weave. */
const findingsAt = (result: CheckResult, template: Template, column: string): Finding[] => {
  const modules = modulesOfParts(template)
  const there = new Set(result.outcomes.filter((outcome) => columnOf(outcome, modules) === column).map((outcome) => outcome.fingerprint))
  return result.findings.flatMap((finding) => {
    const places = finding.places.filter((place) => there.has(place.fingerprint))
    return places.length > 0 ? [{ ...finding, message: places[0]?.message ?? finding.message, places }] : []
  })
}

const columnTitle = (template: Template | null, column: string): string => {
  if (column.startsWith('week:')) return `Week ${column.slice(5)}`
  if (column.startsWith('module:')) return template?.parts.find((part) => part.key === column.slice(7))?.name ?? column.slice(7)
  return { home: 'the home page', names: 'names', course: 'the whole course' }[column] ?? column
}

const Pages = ({ course, chosen, onChoose }: { course: CourseDetail; chosen: string; onChoose: (id: string) => void }) => {
  const items = course.snapshot ? everyCourseItem(course.snapshot).filter(({ item }) => item.html !== null) : []
  const shown = chosen || items[0]?.item.id || ''
  const outcomes = course.result?.findings.flatMap((finding) => finding.places.filter((place) => place.place.foundId === shown).map((place) => ({ ...finding, message: place.message, places: [place] }))) ?? []
  return (
    <div className="grid gap-4 lg:grid-cols-[17rem_minmax(0,1fr)_18rem]">
      <ul className="max-h-[70vh] overflow-y-auto" tabIndex={0} aria-label="Pages">
        {items.map(({ item, module }) => (
          <li key={item.id}>
            <button type="button" aria-current={item.id === shown} className={`w-full truncate px-2 py-0.5 text-left ${item.id === shown ? 'bg-sheet font-semibold' : ''}`} title={`${module?.name ?? ''} › ${item.name}`} onClick={() => onChoose(item.id)}>
              {item.name}
            </button>
          </li>
        ))}
      </ul>
      {shown ? <iframe title="The page as students would see it" sandbox="" className="h-[70vh] w-full border border-line bg-sheet" src={`/api/courses/${course.id}/items/${encodeURIComponent(shown)}`} /> : <p className="text-ink-2">The course has no pages.</p>}
      <div>
        <h3>On this page</h3>
        <Findings findings={outcomes} onShowPage={onChoose} />
      </div>
    </div>
  )
}

const receiptTitle = ({ mode, template, version }: Receipt): string => (mode === 'undo' ? 'Taken back' : mode === 'house-text' ? 'A house text as it is worded now' : `${template}, version ${version}`)
const countsWords = (counts: Receipt['counts']): string => {
  const said = (['create', 'change', 'move', 'adopt', 'remove', 'conflict', 'keep'] as const).flatMap((does) => ((counts[does] ?? 0) > 0 ? [`${doesWords[does]} ${counts[does]}`] : []))
  return said.length > 0 ? said.join(', ') : 'the course itself'
}

/** A newer version is out: bring it in, or judge the course by its strengths without writing to the platform. */
const NewerVersion = ({ course }: { course: CourseDetail }) => {
  const client = useQueryClient()
  const adopt = useMutation({ mutationFn: (version: number | null) => post(`/api/courses/${course.id}/strengths`, { version }), onSuccess: () => client.invalidateQueries({ queryKey: ['course', String(course.id)] }) })
  const { template, strengthsVersion } = course
  if (!template || template.newest <= template.version) return null
  return (
    <div className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-2">
      <p>Version {template.newest} of {template.title} is out; this course is under version {template.version}{strengthsVersion === null ? '' : `, judged by the strengths of version ${strengthsVersion}`}.</p>
      <p className="mt-1 flex flex-wrap gap-4">
        <Link className="text-tide underline underline-offset-2" to={`/rollouts/new?template=${template.key}&version=${template.newest}&courses=${course.id}`}>Plan the update</Link>
        {strengthsVersion === template.newest ? <Button shape="word" className="py-0!" disabled={adopt.isPending} onClick={() => adopt.mutate(null)}>judge it by its own version again</Button> : <Button shape="word" className="py-0!" disabled={adopt.isPending} onClick={() => adopt.mutate(template.newest)}>judge it by version {template.newest}’s strengths, writing nothing</Button>}
      </p>
      <Problem error={adopt.error} />
    </div>
  )
}

/** Receipts: what was brought into the course, from which version, when and by whom. */
const History = ({ course }: { course: CourseDetail }) =>
  course.history.length === 0 ? (
    <p className="py-4 text-ink-2">Nothing was deployed to this course.</p>
  ) : (
    <ol className="divide-y divide-line">
      {course.history.map((one) => (
        <li key={one.number} className="py-2">
          <Link className="underline decoration-line-strong underline-offset-2" to={`/rollouts/${one.run}`}>{receiptTitle(one)}</Link>: {countsWords(one.counts)}, by {one.by}, <Moment at={one.at} />{one.undoneBy !== null && <span className="text-ink-2"> · taken back by <Link className="underline" to={`/rollouts/${one.undoneBy}`}>run {one.undoneBy}</Link></span>}
        </li>
      ))}
    </ol>
  )

const tab = 'border-b-2 border-transparent py-1 data-[state=active]:border-tide data-[state=active]:font-semibold'

export const CourseScreen = ({ me }: { me: Me }) => {
  const { id = '' } = useParams()
  const { search, set } = useAddress()
  const asOf = search.get('asOf') ?? me.today
  const at = search.get('at')
  const shown = search.get('show') ?? 'pairing'
  const client = useQueryClient()
  const query = useCourse(id, asOf)
  const [run, setRun] = useState<number | null>(null)
  const check = useMutation({ mutationFn: () => post<{ run: number }>(`/api/courses/${id}/check`, { asOf }), onSuccess: (answer) => setRun(answer.run) })
  const progress = useRun(run).data
  const running = run !== null && progress?.state !== 'done'
  useEffect(() => {
    if (progress?.state === 'done') void client.invalidateQueries({ predicate: (one) => one.queryKey[0] !== 'run' })
  }, [progress?.state, client])

  if (query.isPending) return <Page title="Course"><Waiting what="the course" /></Page>
  const course = query.data
  if (!course) return <Page title="Course"><Problem error={query.error} /></Page>
  const { result, snapshot, templateDocument } = course
  const showPage = (item: string) => set({ show: 'pages', page: item })
  const narrowed = result && templateDocument && at ? findingsAt(result, templateDocument, at) : null
  const failedTask = progress?.tasks.find((task) => task.state === 'failed')
  return (
    <Page
      title={`${course.code} ${course.title}`}
      above={<><Link className="underline" to="/courses">Courses</Link> › <Link className="underline" to={`/courses?department=${course.department}`}>{course.department}</Link></>}
      beside={
        <>
          <label className="flex items-baseline gap-1 text-ink-2">
            as of <input type="date" className="border border-line-strong bg-sheet px-2 py-1 text-ink" value={asOf} onChange={(event) => set({ asOf: event.target.value === me.today ? null : event.target.value })} />
          </label>
          {(me.role === 'designer' || me.role === 'administrator' || me.role === 'instructor') && <Button shape="main" disabled={running || check.isPending} onClick={() => check.mutate()}>{running ? 'Checking …' : 'Check again'}</Button>}
        </>
      }
    >
      <p className="text-ink-2">
        {course.instructors.map((person) => person.name).join(', ') || 'no instructor'} · class {course.classSections.length === 1 ? 'section' : 'sections'} {course.classSections.join(', ')} · {course.modality} · {course.weeks} weeks ·{' '}
        {course.template ? `${course.template.title}, version ${course.template.version}${course.template.newest > course.template.version ? ` (newest is ${course.template.newest})` : ''}` : stateWords[course.state]}
      </p>
      <Problem error={check.error} />
      {failedTask && <p role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">{failedTask.message}</p>}
      <Tabs.Root value={shown} onValueChange={(value) => set({ show: value, at: null })} className="mt-3">
        <div className="flex flex-wrap items-baseline justify-between gap-x-6">
          <Tabs.List aria-label="Views of the course" className="flex gap-6">
            <Tabs.Trigger className={tab} value="pairing">Pairing</Tabs.Trigger>
            <Tabs.Trigger className={tab} value="findings">Findings {result?.findings.length ?? 0}</Tabs.Trigger>
            <Tabs.Trigger className={tab} value="pages">Pages</Tabs.Trigger>
            <Tabs.Trigger className={tab} value="calendar">Calendar</Tabs.Trigger>
            <Tabs.Trigger className={tab} value="history">History</Tabs.Trigger>
          </Tabs.List>
          <p className="text-ink-2" role="status">
            {result ? `${result.counts.met} of ${result.counts.requirements} requirements met · ${plural(result.counts.openMusts, 'open must')} · ${result.counts.cannotTell} unseen · ` : 'not checked as of this date · '}
            {course.readAt ? <>read <Moment at={course.readAt} today={me.today} /></> : 'never read'}
            {result && <> · <a className="text-tide underline" href={`/api/courses/${course.id}/report?asOf=${asOf}`}>export</a></>}
          </p>
        </div>
        <Tabs.Content value="pairing" className="mt-3">
          {result && snapshot && templateDocument ? (
            <div className="grid gap-x-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
              <PairingView template={templateDocument} facts={course.facts} course={snapshot} result={result} />
              <aside>
                <h2 className="text-[18px]">What to mend</h2>
                <Findings findings={result.findings.slice(0, 6)} onShowPage={showPage} />
                {result.findings.length > 6 && <Button shape="word" onClick={() => set({ show: 'findings' })}>{result.findings.length - 6} more</Button>}
                <Untold result={result} />
              </aside>
            </div>
          ) : (
            <p className="py-8 text-ink-2">{course.template ? 'It was not checked as of this date yet. Press “Check again”.' : 'It is under no template, so there is nothing to pair. Plan a rollout to it, under Rollouts.'}</p>
          )}
        </Tabs.Content>
        <Tabs.Content value="findings" className="mt-3 max-w-4xl">
          {narrowed && at && (
            <p className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-1">
              Only {columnTitle(templateDocument, at)}. <Button shape="word" onClick={() => set({ at: null })}>Show all</Button>
            </p>
          )}
          {result ? <><Findings findings={narrowed ?? result.findings} onShowPage={showPage} /><Untold result={result} /></> : <p className="py-4 text-ink-2">Not checked as of this date.</p>}
        </Tabs.Content>
        <Tabs.Content value="pages" className="mt-3"><Pages course={course} chosen={search.get('page') ?? ''} onChoose={showPage} /></Tabs.Content>
        <Tabs.Content value="calendar" className="mt-3"><CourseCalendarTab key={course.id} course={course} me={me} /></Tabs.Content>
        <Tabs.Content value="history" className="mt-3">{(me.role === 'designer' || me.role === 'administrator') && <><NewerVersion course={course} /><CheckOnly course={course} />{course.status === 'preparing' && <IntoTeaching course={course} />}{(course.status === 'teaching' || course.status === 'preparing') && <IntoAnother course={course} />}</>}<History course={course} /></Tabs.Content>
      </Tabs.Root>
    </Page>
  )
}
