import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import {
  everyExpected,
  everyPart,
  homePageKey,
  isModule,
  type ItemKind,
  itemKinds,
  kindWords,
  strengths,
} from '@wickerframe/core'
import { useCourses, useDraft, useFacts, useMe } from '../../api/queries.ts'
import { Button, Moment, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { Menu } from '../../controls/menu.tsx'
import { viewOnDemand } from '../../shell/onDemand.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { Clashes } from './Clashes.tsx'
import { useDraftStore } from './draftStore.ts'
import { OutlineSheet } from './OutlineSheet.tsx'
import { expandedFor, outlineRows, shownRows, shownOccurrence, slipKeyOf } from './outlineRows.ts'
import { addRow, makeDifferent } from './sheetEdits.ts'
import type { SlipPart } from './Slip.tsx'
import { useProofreading } from './useProofreading.ts'

// What only some visits need comes when it is opened; the page editor is large.
const ExceptionSlip = viewOnDemand(async () => (await import('./PartSettings.tsx')).ExceptionSlip)
const Slip = viewOnDemand(async () => (await import('./Slip.tsx')).Slip)
const CommentsView = viewOnDemand(
  async () => (await import('./views/CommentsView.tsx')).CommentsView,
)
const CourseSettingsView = viewOnDemand(
  async () => (await import('./views/CourseSettingsView.tsx')).CourseSettingsView,
)
const CourseView = viewOnDemand(async () => (await import('./views/CourseView.tsx')).CourseView)
const GradingView = viewOnDemand(async () => (await import('./views/GradingView.tsx')).GradingView)
const LayerView = viewOnDemand(async () => (await import('./views/LayerView.tsx')).LayerView)
const OutcomesView = viewOnDemand(
  async () => (await import('./views/OutcomesView.tsx')).OutcomesView,
)
const ProofreadingView = viewOnDemand(
  async () => (await import('./views/ProofreadingView.tsx')).ProofreadingView,
)
const ReleasePanel = viewOnDemand(
  async () => (await import('./views/ReleasePanel.tsx')).ReleasePanel,
)
const SharedPiecesView = viewOnDemand(
  async () => (await import('./views/SharedPiecesView.tsx')).SharedPiecesView,
)
const VariantsView = viewOnDemand(
  async () => (await import('./views/VariantsView.tsx')).VariantsView,
)
const VersionsView = viewOnDemand(
  async () => (await import('./views/VersionsView.tsx')).VersionsView,
)

const lookEveryMilliseconds = 4000
type View =
  | 'outline'
  | 'settings'
  | 'grading'
  | 'outcomes'
  | 'shared'
  | 'layer'
  | 'proofreading'
  | 'comments'
  | 'versions'
type Show = 'designed' | 'course' | 'variants'

export const WorkbenchScreen = () => {
  const { key = '' } = useParams()
  const { search, set } = useAddress()
  const client = useQueryClient()
  const me = useMe()
  const loaded = useDraft(key)
  const courses = useCourses()
  const store = useDraftStore()
  const { draft, open, look, upper } = store
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const [releasing, setReleasing] = useState(false)

  useEffect(() => {
    if (loaded.data) open(loaded.data)
  }, [loaded.data, open])
  useEffect(() => {
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void look().catch(() => undefined)
    }, lookEveryMilliseconds)
    return () => clearInterval(timer)
  }, [look])
  const { waiting } = store
  useEffect(() => {
    if (waiting.length === 0) return
    const stay = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', stay)
    return () => window.removeEventListener('beforeunload', stay)
  }, [waiting.length])

  const applies = draft?.appliesTo
  const fitting = useMemo(
    () =>
      (courses.data ?? []).filter(
        (course) =>
          !applies ||
          ((applies.weeks.length === 0 || applies.weeks.includes(course.weeks)) &&
            (applies.modalities.length === 0 || applies.modalities.includes(course.modality)) &&
            (applies.departments.length === 0 || applies.departments.includes(course.department))),
      ),
    [courses.data, applies],
  )
  const apart = tellApart(fitting)
  const courseId = search.get('course') ?? (applies ? String(fitting[0]?.id ?? '') : '')
  const facts = useFacts(courseId)
  // Working the outline out for a course may lag a key behind; typing never waits for it.
  const settled = useDeferredValue(draft)
  const expected = useMemo(
    () => (settled && facts.data ? expandedFor(settled, facts.data) : null),
    [settled, facts.data],
  )
  const rows = useMemo(
    () => (draft ? outlineRows(draft, upper, expected) : []),
    [draft, upper, expected],
  )
  const filter = useMemo(
    () => ({
      text: search.get('find') ?? '',
      kind: search.get('kind') ?? '',
      strength: search.get('strength') ?? '',
    }),
    [search],
  )
  const shown = useMemo(
    () => (draft ? shownRows(rows, draft, filter, closed) : []),
    [rows, draft, filter, closed],
  )
  const remarks = useProofreading(draft)
  const remarksByPart = useMemo(() => {
    const found = new Map<string, string>()
    for (const remark of remarks ?? [])
      if (remark.part !== null)
        found.set(remark.part, [found.get(remark.part), remark.message].filter(Boolean).join(' · '))
    return found
  }, [remarks])
  const choose = useCallback((to: string | null) => set({ part: to, view: null }), [set])
  const onToggle = useCallback(
    (row: string) =>
      setClosed((before) => {
        const next = new Set(before)
        if (!next.delete(row)) next.add(row)
        return next
      }),
    [],
  )
  const sources = useMemo(
    () => ({
      parts: draft
        ? [
            { key: homePageKey, name: 'Home page' },
            ...everyPart(draft).map((part) => ({ key: part.key, name: part.name })),
          ]
        : [],
      assets: draft?.assets ?? [],
    }),
    [draft],
  )
  if (loaded.isPending || !loaded.data || !draft || store.key !== key)
    return (
      <Page title="Template">
        {loaded.error ? <Problem error={loaded.error} /> : <Waiting what="the template" />}
      </Page>
    )

  const detail = loaded.data
  const view = (search.get('view') ?? 'outline') as View
  const show = (search.get('show') ?? 'designed') as Show
  const chosenRow = search.get('part')
  const chosen = chosenRow === null ? null : slipKeyOf(chosenRow)
  const parts = everyPart(draft)
  const definition = parts.find((part) => part.key === chosen) ?? null
  const exceptionRow = rows.find((row) => row.key === chosen && row.row === 'exception')
  const exceptionModule =
    exceptionRow?.row === 'exception'
      ? parts.find((part) => part.key === exceptionRow.module)
      : undefined
  const slip: SlipPart | null =
    chosen === homePageKey
      ? { key: homePageKey, definition: null, blocks: draft.home.blocks }
      : definition
        ? { key: definition.key, definition, blocks: isModule(definition) ? [] : definition.blocks }
        : null
  const occurrences = expected
    ? everyExpected(expected.parts).filter((part) => part.key === chosen)
    : []
  const expectedPart =
    chosen === homePageKey ? (expected?.home ?? null) : shownOccurrence(occurrences)
  const slipOpen = slip !== null || exceptionRow !== undefined
  const add = (kind: ItemKind | 'module') => {
    const made = addRow(
      kind,
      rows.find((row) => row.key === chosenRow && row.row !== 'element' && row.row !== 'home'),
      draft,
    )
    if (store.edit(...made.edits)) choose(made.key)
  }
  const latest = detail.versions[0]?.number ?? 0
  const musts = parts.filter((part) => part.strength === 'must').length
  const errors = (remarks ?? []).filter((remark) => remark.severity === 'error').length
  const nameOf = (part: string) =>
    part === homePageKey ? 'the home page' : (parts.find((one) => one.key === part)?.name ?? part)
  const views: readonly (readonly [View, string])[] = [
    ['outline', 'Outline'],
    ['settings', 'Course'],
    ['grading', 'Grades and rubrics'],
    ['outcomes', 'Outcomes'],
    ['shared', 'Shared pieces'],
    ...(detail.above
      ? [
          [
            'layer',
            detail.above.newest > detail.above.version
              ? `Layer above (version ${detail.above.newest} is out)`
              : 'Layer above',
          ] as const,
        ]
      : []),
    ['proofreading', remarks === null ? 'Proofreading' : `Proofreading (${remarks.length})`],
    ['comments', `Comments (${detail.openComments})`],
    ['versions', 'Versions'],
  ]
  return (
    <Page
      title={draft.title}
      above={
        <>
          <Link className="underline" to="/templates">
            Templates
          </Link>{' '}
          › {draft.appliesTo.modalities.join(', ').replaceAll('-', ' ') || 'any modality'} ·{' '}
          {draft.appliesTo.weeks.join(' or ') || 'any number of'} weeks ·{' '}
          {plural(parts.length, 'part')}, {plural(musts, 'must', 'musts')}
          {detail.above ? (
            <>
              {' '}
              · built on{' '}
              <Link className="underline" to={`/templates/${detail.above.key}`}>
                {detail.above.title}
              </Link>{' '}
              {detail.above.version}
            </>
          ) : (
            ''
          )}
        </>
      }
      beside={
        <>
          <span className="text-ink-2" role="status">
            draft of version {latest + 1} ·{' '}
            {store.waiting.length > 0 ? (
              'saving …'
            ) : store.savedAt ? (
              <>
                saved <Moment at={store.savedAt} />
              </>
            ) : (
              ''
            )}{' '}
            · {plural(store.changes, 'change')} since{' '}
            {latest === 0 ? 'it began' : `version ${latest}`}
          </span>
          <Button disabled={store.done.length === 0} onClick={store.undo}>
            Undo
          </Button>
          <Button disabled={store.undone.length === 0} onClick={store.redo}>
            Redo
          </Button>
          {detail.mayRelease && (
            <Button
              shape="main"
              disabled={store.waiting.length > 0 || releasing}
              onClick={() => setReleasing(true)}
            >
              Release version {latest + 1} …
            </Button>
          )}
        </>
      }
    >
      {releasing && (
        <ReleasePanel
          template={key}
          revision={store.revision}
          latest={latest}
          remarks={remarks ?? []}
          waiting={store.waiting.length > 0}
          onReleased={store.released}
          onProofread={() => {
            setReleasing(false)
            set({ view: 'proofreading' })
          }}
          onClose={() => setReleasing(false)}
        />
      )}
      <Clashes clashes={store.clashes} onDecide={store.decide} />
      {store.problem && (
        <div role="alert" className="mt-2 flex gap-3 border-l-4 border-rust bg-rust-soft px-3 py-1">
          <p>{store.problem}</p>
          <Button shape="word" onClick={store.forget}>
            forget it
          </Button>
        </div>
      )}
      {store.fromOthers.length > 0 && (
        <div role="status" className="mt-2 flex gap-3 border-l-4 border-slate bg-band px-3 py-1">
          <p>
            Somebody else changed the draft meanwhile:{' '}
            {store.fromOthers
              .slice(0, 3)
              .map((other) => `${other.of}, ${other.words}`)
              .join('; ')}
            {store.fromOthers.length > 3 ? `, and ${store.fromOthers.length - 3} more` : ''}.
          </p>
          <Button shape="word" onClick={store.forget}>
            seen
          </Button>
        </div>
      )}
      <nav
        aria-label="Of this template"
        className="mt-1 flex flex-wrap gap-x-4 border-b border-line"
      >
        {views.map(([id, text]) => (
          <button
            key={id}
            type="button"
            aria-current={view === id ? 'page' : undefined}
            onClick={() => set({ view: id === 'outline' ? null : id })}
            className={`border-b-2 py-1 ${view === id ? 'border-ink font-semibold' : 'border-transparent text-ink-2'} ${id === 'proofreading' && errors > 0 ? 'text-rust' : ''}`}
          >
            {text}
          </button>
        ))}
      </nav>
      {view === 'settings' && <CourseSettingsView template={draft} />}
      {view === 'grading' && <GradingView template={draft} onOpen={choose} />}
      {view === 'outcomes' && <OutcomesView template={draft} onOpen={choose} />}
      {view === 'shared' && <SharedPiecesView template={draft} sources={sources} />}
      {view === 'layer' && (
        <LayerView
          template={detail}
          revision={store.revision}
          waiting={store.waiting.length > 0}
          onTaken={() => void client.invalidateQueries({ queryKey: ['template', key] })}
        />
      )}
      {view === 'proofreading' &&
        (remarks ? (
          <ProofreadingView remarks={remarks} template={draft} nameOf={nameOf} onOpen={choose} />
        ) : (
          <Waiting what="the template" />
        ))}
      {view === 'comments' && (
        <CommentsView template={key} parts={sources.parts} part={chosen} onOpen={choose} />
      )}
      {view === 'versions' && <VersionsView template={detail} />}
      {view === 'outline' && (
        <>
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
            <Pick
              inline
              label="Worked out for"
              className="[&>select]:max-w-64"
              value={courseId}
              onChange={(event) => set({ course: event.target.value })}
              options={[
                ...(fitting.length === 0 ? [{ value: '', text: 'no course fits' }] : []),
                ...fitting.map((course) => ({
                  value: String(course.id),
                  text: `${course.code} ${course.title}, ${apart.get(course.platformId)} (${course.weeks} weeks)`,
                })),
              ]}
            />
            <span className="inline-flex border border-line-strong" role="group" aria-label="Show">
              {(
                [
                  ['designed', 'As designed'],
                  ['course', 'As this course'],
                  ['variants', 'Side by side'],
                ] as const
              ).map(([id, text]) => (
                <button
                  key={id}
                  type="button"
                  aria-pressed={show === id}
                  onClick={() => set({ show: id === 'designed' ? null : id })}
                  className={`px-3 py-1 ${show === id ? 'bg-ink text-sheet' : 'bg-sheet'}`}
                >
                  {text}
                </button>
              ))}
            </span>
            {show === 'designed' && (
              <>
                <input
                  aria-label="Find in the outline"
                  placeholder="Find …"
                  className="w-28 border border-line-strong bg-sheet px-2 py-1"
                  value={filter.text}
                  onChange={(event) => set({ find: event.target.value || null })}
                />
                <Pick
                  inline
                  label=""
                  aria-label="Only this kind"
                  value={filter.kind}
                  onChange={(event) => set({ kind: event.target.value || null })}
                  options={[
                    { value: '', text: 'every kind' },
                    ...['module', ...itemKinds, 'exception', 'element'].map((one) => ({
                      value: one,
                      text: one.replace('-', ' '),
                    })),
                  ]}
                />
                <Pick
                  inline
                  label=""
                  aria-label="Only this strength"
                  value={filter.strength}
                  onChange={(event) => set({ strength: event.target.value || null })}
                  options={[
                    { value: '', text: 'any strength' },
                    ...strengths.map((strength) => ({ value: strength, text: strength })),
                  ]}
                />
                {store.mayEdit && (
                  <Menu
                    label="Add a part"
                    groups={[
                      {
                        items: [
                          { value: 'module', text: 'module' },
                          ...itemKinds.map((kind) => ({ value: kind, text: kindWords(kind) })),
                        ],
                      },
                    ]}
                    onPick={(kind) => add(kind as ItemKind | 'module')}
                  />
                )}
              </>
            )}
          </div>
          <div
            className={`mt-2 grid ${slipOpen && show === 'designed' ? 'lg:grid-cols-[minmax(0,1fr)_30rem]' : ''}`}
          >
            <div className="min-w-0">
              {show === 'course' ? (
                <CourseView
                  expected={expected}
                  mayEdit={store.mayEdit}
                  canDiffer={(part) => isModule(part) && part.repeat !== undefined}
                  onOpen={(to) => set({ part: to, show: null })}
                  onDiffer={(module, number) => {
                    const made = makeDifferent(module, { at: 'number', number }, draft)
                    if (store.edit(...made.edits)) set({ part: made.key, show: null })
                  }}
                />
              ) : show === 'variants' ? (
                <VariantsView template={draft} onOpen={(to) => set({ part: to, show: null })} />
              ) : (
                <OutlineSheet
                  rows={shown}
                  all={rows}
                  template={draft}
                  chosen={chosenRow}
                  slipOpen={slipOpen}
                  closed={closed}
                  remarks={remarksByPart}
                  onChoose={choose}
                  onToggle={onToggle}
                />
              )}
              {show === 'designed' && (
                <p className="mt-1 text-[12.5px] text-ink-3">
                  Enter or type: edit · Tab: next cell · Ctrl Enter: new row · Alt arrows: move, in,
                  out · Ctrl D: fill down · F4: open the slip · ?: all keys
                </p>
              )}
            </div>
            {show === 'designed' && slip && (
              <Slip
                key={slip.key}
                part={slip}
                expected={expectedPart}
                template={draft}
                upper={upper}
                sources={sources}
                today={me.data?.today ?? ''}
                timeZone={facts.data?.term.timeZone ?? null}
                remarks={(remarks ?? [])
                  .filter((remark) => remark.part === slip.key)
                  .map((remark) => remark.message)}
                onClose={() => choose(null)}
                onOpen={choose}
              />
            )}
            {show === 'designed' &&
              exceptionRow?.row === 'exception' &&
              exceptionModule &&
              isModule(exceptionModule) && (
                <ExceptionSlip
                  key={exceptionRow.key}
                  module={exceptionModule}
                  exception={exceptionRow.exception}
                  template={draft}
                  onClose={() => choose(null)}
                  onOpen={choose}
                />
              )}
          </div>
        </>
      )}
    </Page>
  )
}
