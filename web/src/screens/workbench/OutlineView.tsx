import { useCallback, useMemo, useState } from 'react'
import {
  everyPart,
  homePageKey,
  isModule,
  type ItemKind,
  type ListedRow,
  type Remark,
  type Template,
} from '@wickerframe/core'
import { useMe } from '../../api/queries.ts'
import { viewOnDemand } from '../../shell/onDemand.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { useDraftStore } from './draftStore.ts'
import { OutlineBar, type Show } from './OutlineBar.tsx'
import { OutlineSheet } from './OutlineSheet.tsx'
import {
  expectedPartOf,
  outlineRows,
  shownRows,
  slipKeyOf,
  type OutlineRow,
} from './outlineRows.ts'
import type { PageSources } from './page/pageSources.ts'
import type { Listing } from './ListOfParts.tsx'
import { addRow, listEdits, makeDifferent } from './sheetEdits.ts'
import type { SlipPart } from './Slip.tsx'
import { useSaid } from './useSaid.tsx'
import { useWorkedOut, type WorkedOut } from './useWorkedOut.ts'

// What only some visits need comes when it is opened; the page editor is large.
const ExceptionSlip = viewOnDemand(async () => (await import('./PartSettings.tsx')).ExceptionSlip)
const ListOfParts = viewOnDemand(async () => (await import('./ListOfParts.tsx')).ListOfParts)
const Slip = viewOnDemand(async () => (await import('./Slip.tsx')).Slip)
const CourseView = viewOnDemand(async () => (await import('./views/CourseView.tsx')).CourseView)
const VariantsView = viewOnDemand(
  async () => (await import('./views/VariantsView.tsx')).VariantsView,
)

/** What the slip beside the outline is about; null: none is open, or it is an exception's. */
const slipOf = (draft: Template, chosen: string | null): SlipPart | null => {
  if (chosen === homePageKey)
    return { key: homePageKey, definition: null, blocks: draft.home.blocks }
  const definition = everyPart(draft).find((part) => part.key === chosen)
  return definition
    ? { key: definition.key, definition, blocks: isModule(definition) ? [] : definition.blocks }
    : null
}

const messagesByPart = (remarks: readonly Remark[]): ReadonlyMap<string, string> => {
  const messages = new Map<string, string>()
  for (const { part, message } of remarks)
    if (part !== null) messages.set(part, [messages.get(part), message].filter(Boolean).join(' · '))
  return messages
}

/** The slip of what is chosen in the outline. */
const ChosenSlip = ({
  draft,
  row,
  slip,
  workedOut,
  sources,
  remarks,
  onChoose,
}: {
  draft: Template
  row: OutlineRow | undefined
  slip: SlipPart | null
  workedOut: WorkedOut
  sources: PageSources
  remarks: readonly Remark[]
  onChoose: (to: string | null) => void
}) => {
  const me = useMe()
  const upper = useDraftStore((store) => store.upper)
  const close = () => onChoose(null)
  if (slip)
    return (
      <Slip
        key={slip.key}
        part={slip}
        expected={expectedPartOf(workedOut.expected, slip.key)}
        template={draft}
        upper={upper}
        sources={sources}
        today={me.data?.today ?? ''}
        timeZone={workedOut.facts?.term.timeZone ?? null}
        remarks={remarks.flatMap(({ part, message }) => (part === slip.key ? [message] : []))}
        course={workedOut.course}
        onClose={close}
        onOpen={onChoose}
      />
    )
  const module =
    row?.row === 'exception' ? everyPart(draft).find((part) => part.key === row.module) : undefined
  if (row?.row !== 'exception' || !module || !isModule(module)) return null
  return (
    <ExceptionSlip
      key={row.key}
      module={module}
      exception={row.exception}
      template={draft}
      onClose={close}
      onOpen={onChoose}
    />
  )
}

/** A list, the row that it goes beside, and how the keyboard gets to what came of it. */
interface AskedList {
  listing: Listing
  row: OutlineRow | undefined
  goTo: (key: string) => void
}

/** The outline of a template: as designed, worked out for a course, or for kinds of courses side by side. */
export const OutlineView = ({
  draft,
  sources,
  remarks,
}: {
  draft: Template
  sources: PageSources
  remarks: readonly Remark[]
}) => {
  const { search, set } = useAddress()
  const { upper, edit, mayEdit } = useDraftStore()
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const [listing, setListing] = useState<AskedList | null>(null)
  const { said, say } = useSaid()
  const workedOut = useWorkedOut(draft, search.get('course'))
  const { expected } = workedOut
  const rows = useMemo(() => outlineRows(draft, upper, expected), [draft, upper, expected])
  const filter = useMemo(
    () => ({
      text: search.get('find') ?? '',
      kind: search.get('kind') ?? '',
      strength: search.get('strength') ?? '',
    }),
    [search],
  )
  const shown = useMemo(() => shownRows(rows, draft, filter, closed), [rows, draft, filter, closed])
  const messages = useMemo(() => messagesByPart(remarks), [remarks])
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
  const onList = useCallback(
    (listing: Listing, row: OutlineRow, goTo: (key: string) => void) =>
      setListing({ listing, row, goTo }),
    [],
  )
  const show = (search.get('show') ?? 'designed') as Show
  const chosenRow = search.get('part')
  const chosen = chosenRow === null ? null : slipKeyOf(chosenRow)
  const slip = slipOf(draft, chosen)
  const exceptionRow = rows.find((row) => row.key === chosen && row.row === 'exception')
  const slipOpen = slip !== null || exceptionRow !== undefined
  const openDesigned = (to: string) => set({ part: to, show: null })
  const add = (kind: ItemKind | 'module' | 'list') => {
    const beside = rows.find(
      (row) => row.key === chosenRow && row.row !== 'element' && row.row !== 'home',
    )
    if (kind === 'list') {
      setListing({ listing: { text: '', html: '', intoCells: null }, row: beside, goTo: choose })
      return
    }
    const made = addRow(kind, beside, draft)
    if (edit(...made.edits)) choose(made.key)
  }
  const bar = (
    <OutlineBar
      fitting={workedOut.fitting}
      course={workedOut.course}
      show={show}
      filter={filter}
      set={set}
      onAdd={mayEdit ? add : null}
    />
  )
  const take = (asked: AskedList, listed: ListedRow[]) => {
    const { edits, first } = listEdits(listed, asked.row, draft)
    if (!edit(...edits)) return
    if (asked.row && closed.has(asked.row.key)) onToggle(asked.row.key)
    say(`${listed.length === 1 ? 'One row' : `${listed.length} rows`} came in.`)
    setListing(null)
    if (first) asked.goTo(first)
  }
  if (show === 'course')
    return (
      <>
        {bar}
        <div className="mt-2">
          <CourseView
            expected={expected}
            mayEdit={mayEdit}
            canDiffer={(part) => isModule(part) && part.repeat !== undefined}
            onOpen={openDesigned}
            onDiffer={(module, number) => {
              const made = makeDifferent(module, { at: 'number', number }, draft)
              if (edit(...made.edits)) openDesigned(made.key)
            }}
          />
        </div>
      </>
    )
  if (show === 'variants')
    return (
      <>
        {bar}
        <div className="mt-2">
          <VariantsView template={draft} onOpen={openDesigned} />
        </div>
      </>
    )
  return (
    <>
      {bar}
      {said}
      {listing && (
        <ListOfParts
          listing={listing.listing}
          onTake={(listed: ListedRow[]) => take(listing, listed)}
          onClose={() => setListing(null)}
        />
      )}
      <div className={`mt-2 grid ${slipOpen ? 'lg:grid-cols-[minmax(0,1fr)_30rem]' : ''}`}>
        <div className="min-w-0">
          <OutlineSheet
            rows={shown}
            all={rows}
            template={draft}
            chosen={chosenRow}
            slipOpen={slipOpen}
            closed={closed}
            remarks={messages}
            onChoose={choose}
            onToggle={onToggle}
            onList={onList}
          />
          <p className="mt-1 text-[12.5px] text-ink-3">
            Enter or type: edit · Tab: next cell · Ctrl Enter: new row · Alt arrows: move, in, out ·
            Ctrl D: fill down · F4: open the slip · ?: all keys
          </p>
        </div>
        <ChosenSlip
          draft={draft}
          row={exceptionRow}
          slip={slip}
          workedOut={workedOut}
          sources={sources}
          remarks={remarks}
          onChoose={choose}
        />
      </div>
    </>
  )
}
