import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { Link, useParams } from 'react-router'
import { everyExpected, everyPart, homePageKey, isModule, itemKinds, localDateOf, type ItemKind, type Part } from '@wickerframe/core'
import { post } from '../../api/client.ts'
import { useCourses, useDraft, useFacts, useMe } from '../../api/queries.ts'
import { Button, Moment, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { useDraftStore } from './draftStore.ts'
import { OutlineSheet } from './OutlineSheet.tsx'
import { expandedFor, freshKey, outlineRows, slipKeyOf } from './outlineRows.ts'
import { Slip, type SlipPart } from './Slip.tsx'

const newPart = (kind: ItemKind | 'module', key: string): Part => {
  const common = { key, strength: 'must' as const, audience: 'students' as const, position: 'in-order' as const, span: 'module' as const, may: {}, settings: {} }
  return kind === 'module' ? { ...common, kind, name: 'New module', items: [] } : { ...common, kind, name: `New ${kind.replace('-', ' ')}`, blocks: [], acceptsInstead: [], inGroup: 'per-unit' }
}

export const WorkbenchScreen = () => {
  const { key = '' } = useParams()
  const { search, set } = useAddress()
  const client = useQueryClient()
  const me = useMe()
  const loaded = useDraft(key)
  const courses = useCourses()
  const store = useDraftStore()
  const { draft, open } = store

  useEffect(() => {
    if (loaded.data) open(key, loaded.data.draft, loaded.data.draftRevision, loaded.data.savedAt, loaded.data.mayEdit, loaded.data.changesSinceRelease)
  }, [loaded.data, key, open])

  const applies = draft?.appliesTo
  const fitting = useMemo(
    () => (courses.data ?? []).filter((course) => !applies || ((applies.weeks.length === 0 || applies.weeks.includes(course.weeks)) && (applies.modalities.length === 0 || applies.modalities.includes(course.modality)))),
    [courses.data, applies],
  )
  const courseId = search.get('course') ?? String(fitting[0]?.id ?? '')
  const facts = useFacts(courseId)
  const expected = useMemo(() => (draft && facts.data ? expandedFor(draft, facts.data) : null), [draft, facts.data])
  const rows = useMemo(() => (draft ? outlineRows(draft, expected) : []), [draft, expected])
  const release = useMutation({
    mutationFn: () => post<{ version: number }>(`/api/templates/${key}/release`, { revision: store.revision, note: '' }),
    onSuccess: () => {
      store.released()
      void client.invalidateQueries({ queryKey: ['templates'] })
      void client.invalidateQueries({ queryKey: ['template', key] })
    },
  })
  if (loaded.isPending || !draft || store.key !== key) return <Page title="Template">{loaded.error ? <Problem error={loaded.error} /> : <Waiting what="the template" />}</Page>

  const chosenRow = search.get('part')
  const chosen = chosenRow === null ? null : slipKeyOf(chosenRow)
  const asThisCourse = search.get('view') === 'course'
  const parts = everyPart(draft)
  const definition = parts.find((part) => part.key === chosen) ?? null
  const slip: SlipPart | null = chosen === homePageKey ? { key: homePageKey, definition: null, blocks: draft.home.blocks } : definition ? { key: definition.key, definition, blocks: isModule(definition) ? [] : definition.blocks } : null
  const turns = expected ? everyExpected(expected.parts).filter((part) => part.key === chosen) : []
  const expectedPart = chosen === homePageKey ? (expected?.home ?? null) : (turns.find((part) => part.week?.number === 3) ?? turns[0] ?? null)
  const add = (kind: ItemKind | 'module') => {
    const fresh = newPart(kind, freshKey(kind, new Set([homePageKey, ...parts.map((part) => part.key)])))
    const row = rows.find((one) => one.key === chosen && one.block === null)
    const inModule = row && row.kind === 'module' && kind !== 'module' ? { parent: row.key, at: 2000 } : row && row.index >= 0 ? { parent: kind === 'module' ? null : row.parent, at: kind === 'module' ? draft.parts.length : row.index + 1 } : { parent: null, at: draft.parts.length }
    if (store.edit({ edit: 'add-part', ...inModule, part: fresh })) set({ part: fresh.key })
  }
  const latest = loaded.data?.versions[0]?.number ?? 0
  const musts = parts.filter((part) => part.strength === 'must').length
  return (
    <Page
      title={draft.title}
      above={<><Link className="underline" to="/templates">Templates</Link> › {draft.appliesTo.modalities.join(', ') || 'any modality'} · {draft.appliesTo.weeks.join(' or ') || 'any number of'} weeks</>}
      beside={
        <>
          <span className="text-ink-2" role="status">
            draft of version {latest + 1} · {store.waiting.length > 0 ? 'saving …' : store.savedAt ? <>saved <Moment at={store.savedAt} /></> : ''} · {plural(store.changes, 'change')} since {latest === 0 ? 'it began' : `version ${latest}`}
          </span>
          <Button disabled={store.done.length === 0} onClick={store.undo}>Undo</Button>
          <Button disabled={store.undone.length === 0} onClick={store.redo}>Redo</Button>
          {loaded.data?.mayRelease && <Button shape="main" disabled={store.waiting.length > 0 || release.isPending} onClick={() => release.mutate()}>Release version {latest + 1}</Button>}
        </>
      }
    >
      {release.data && !release.error && <p role="status" className="mt-2 border-l-4 border-tide bg-tide-soft px-3 py-1">Version {release.data.version} is released. It never changes; what you edit now belongs to the next one. <Link className="text-tide underline" to={`/rollouts/new?template=${key}&version=${release.data.version}`}>Plan its rollout</Link></p>}
      <Problem error={release.error} />
      {store.problem && (
        <div role="alert" className="mt-2 flex gap-3 border-l-4 border-rust bg-rust-soft px-3 py-1">
          <p>
            {store.problem}
            {store.clash && ` There it says ${JSON.stringify(store.clash.present)}; you wrote ${JSON.stringify(store.clash.wanted)}.`}
          </p>
          <Button shape="word" onClick={() => { const clashed = store.clash !== null; store.forgetProblem(); if (clashed) void loaded.refetch() }}>{store.clash ? 'show theirs' : 'understood'}</Button>
        </div>
      )}
      <div className="mt-3 flex flex-wrap items-end justify-between gap-3">
        <div className="flex flex-wrap items-center gap-4">
          <Pick inline label="Read as" value={courseId} onChange={(event) => set({ course: event.target.value })} options={fitting.map((course) => ({ value: String(course.id), text: `${course.code} ${course.title} (${course.weeks} weeks)` }))} />
          <span className="inline-flex border border-line-strong" role="group" aria-label="Show">
            {[['', 'As designed'], ['course', 'As this course']].map(([value, text]) => (
              <button key={value} type="button" aria-pressed={asThisCourse === (value === 'course')} onClick={() => set({ view: value ?? null })} className={`px-3 py-1 ${asThisCourse === (value === 'course') ? 'bg-ink text-sheet' : 'bg-sheet'}`}>{text}</button>
            ))}
          </span>
          {store.mayEdit && !asThisCourse && <Pick inline label="Add a" value="" onChange={(event) => event.target.value && add(event.target.value as ItemKind | 'module')} options={[{ value: '', text: 'part …' }, { value: 'module', text: 'module' }, ...itemKinds.map((kind) => ({ value: kind, text: kind.replace('-', ' ') }))]} />}
          {store.mayEdit && !asThisCourse && definition && <Button shape="word" onClick={() => { store.edit({ edit: 'remove-part', part: definition.key }); set({ part: null }) }}>remove “{definition.name}”</Button>}
        </div>
        <p className="text-ink-2">{plural(parts.length, 'part')} · {plural(musts, 'must', 'musts')}{expected ? ` · ${everyExpected(expected.parts).length} in this course` : ''}</p>
      </div>
      <div className={`mt-2 grid ${slip ? 'lg:grid-cols-[minmax(0,1fr)_30rem]' : ''}`}>
        <div className="min-w-0 overflow-x-auto">
          {asThisCourse ? (
            <ul>
              {expected ? [expected.home, ...everyExpected(expected.parts)].map((part) => (
                <li key={part.instance} className={`grid grid-cols-[minmax(0,1fr)_7rem_12rem] gap-3 border-b border-line px-2 py-1 ${part.kind === 'module' ? 'bg-band font-semibold' : ''} ${part.inBreak && part.kind !== 'module' ? 'hidden' : ''}`} style={{ paddingLeft: part.parent === null ? 8 : 26 }}>
                  <button type="button" className="truncate text-left" onClick={() => set({ part: part.key })}>{part.name}</button>
                  <span className="font-mono text-[12px]">{part.audience === 'students' ? part.strength : part.audience}</span>
                  <span className="text-ink-2">{part.dueAt ? `due ${localDateOf(part.dueAt, expected.facts.term.timeZone)}` : part.kind === 'module' && part.week ? `${part.week.first} on` : ''}</span>
                </li>
              )) : <li className="py-4 text-ink-2">Choose a course that the template fits.</li>}
            </ul>
          ) : (
            <OutlineSheet rows={rows} chosen={chosenRow} onChoose={(to) => set({ part: to })} />
          )}
          <p className="mt-2 text-ink-3">↑ ↓ row · Enter edit its name · Alt ↑ ↓ move it · S strength · Delete remove · Ctrl Z undo</p>
        </div>
        {slip && <Slip key={slip.key} part={slip} expected={expectedPart} template={draft} today={me.data?.today ?? ''} timeZone={facts.data?.term.timeZone ?? null} onClose={() => set({ part: null })} />}
      </div>
    </Page>
  )
}
