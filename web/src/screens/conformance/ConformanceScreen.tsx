import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { ConformanceRow, Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { sampleStrands, type Crossing, type WeaveColumn } from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { useConformance, useRun } from '../../api/queries.ts'
import { Button, Choice, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { useAddress } from '../../shell/useAddress.ts'
import { MendFirst } from './MendFirst.tsx'
import { Legend, Strands, tellStrands } from './Strands.tsx'

const weekOf = (column: WeaveColumn): number | null =>
  column.key.startsWith('week:') ? Number(column.key.slice(5)) : null
/** Not a column of the server's: the weeks that are folded together. */
const restKey = 'other-weeks'
const crossingAddress = (row: ConformanceRow, column: string) =>
  `/courses/${row.course.id}?show=mend${column === restKey ? '' : `&at=${encodeURIComponent(column)}`}`
const worst = (row: ConformanceRow) => row.course.check?.counts.openMusts ?? 0

const Count = ({ figure, says, tone }: { figure: string; says: string; tone: string }) => (
  <p>
    <span className={`block font-serif text-[22px] font-semibold ${tone}`}>{figure}</span>
    <span className="text-ink-2">{says}</span>
  </p>
)

/** A check run under way: counts, and the weave read again when it is over. */
const CheckProgress = ({ run, onOver }: { run: number; onOver: () => void }) => {
  const detail = useRun(run).data
  const over = detail?.state === 'done' || detail?.state === 'cancelled'
  useEffect(() => {
    if (over) onOver()
  }, [over, onOver])
  if (!detail || over) return null
  const all = detail.tasks.length
  return (
    <p role="status" className="text-ink-2">
      Checking: {detail.counts.done + detail.counts.failed} of {all}
      {detail.secondsLeft !== null && `, about ${Math.ceil(detail.secondsLeft)} s left`}
    </p>
  )
}

const RowCells = ({
  row,
  columns,
  width,
  onShow,
}: {
  row: ConformanceRow
  columns: readonly WeaveColumn[]
  width: number
  onShow: (row: ConformanceRow, column: WeaveColumn, crossing: Crossing) => void
}) => {
  const byColumn = new Map(row.crossings.map((crossing) => [crossing.column, crossing]))
  return columns.map((column) => {
    const crossing = byColumn.get(column.key)
    return (
      <td key={column.key} className="px-[3px] py-0">
        {crossing && crossing.strands.length > 0 ? (
          <Link
            to={crossingAddress(row, column.key)}
            aria-label={`${row.course.code} ${row.course.title}, ${column.title}: ${tellStrands(crossing.strands)}`}
            onPointerEnter={() => onShow(row, column, crossing)}
            onFocus={() => onShow(row, column, crossing)}
            className="block"
          >
            <Strands strands={crossing.strands} width={width} />
          </Link>
        ) : (
          <Strands strands={[]} width={width} />
        )}
      </td>
    )
  })
}

export const ConformanceScreen = ({ me }: { me: Me }) => {
  const { search, set } = useAddress()
  const asOf = search.get('asOf') ?? me.today
  const department = search.get('department') ?? ''
  const order = search.get('order') ?? 'musts'
  const weeksShown = search.get('weeks') ?? 'near'
  const client = useQueryClient()
  const conformance = useConformance(asOf)
  const [run, setRun] = useState<number | null>(null)
  const [pointed, setPointed] = useState<{
    row: ConformanceRow
    column: WeaveColumn
    crossing: Crossing
  } | null>(null)
  const check = useMutation({
    mutationFn: () => call('checkCourses', { body: { asOf } }),
    onSuccess: ({ run: id }) => setRun(id),
  })
  const view = conformance.data

  const departments = useMemo(
    () => [...new Set((view?.rows ?? []).map((row) => row.course.department))].sort(),
    [view],
  )
  const apart = useMemo(() => tellApart((view?.rows ?? []).map((row) => row.course)), [view])
  const rows = useMemo(() => {
    const shown = (view?.rows ?? []).filter(
      (row) => department === '' || row.course.department === department,
    )
    const byCode = (a: ConformanceRow, b: ConformanceRow) =>
      a.course.code < b.course.code
        ? -1
        : a.course.code > b.course.code
          ? 1
          : a.course.id - b.course.id
    return shown.sort(
      (a, b) =>
        (order === 'musts' ? worst(b) - worst(a) : 0) ||
        (order === 'shoulds'
          ? (b.course.check?.counts.openShoulds ?? 0) - (a.course.check?.counts.openShoulds ?? 0)
          : 0) ||
        byCode(a, b),
    )
  }, [view, department, order])
  const openWeeks = useMemo(() => {
    // The weeks with something open or coming; the rest are a press away.
    const weeks = (view?.columns ?? []).flatMap((column) => weekOf(column) ?? [])
    const busy = weeks.filter((week) =>
      rows.some((row) =>
        row.crossings.some(
          (crossing) =>
            crossing.column === `week:${week}` &&
            crossing.strands.some((strand) => strand.startsWith('open')),
        ),
      ),
    )
    return new Set([...busy.slice(0, 5), ...weeks.slice(0, 3)])
  }, [view, rows])
  if (conformance.isPending)
    return (
      <Page title="Is the term in order?">
        <Waiting what="the checks" />
      </Page>
    )
  if (!view)
    return (
      <Page title="Is the term in order?">
        <Problem error={conformance.error} />
      </Page>
    )

  // Weeks that are not shown one by one stand together in a column of their own, so that nothing open is out of sight.
  const folded = view.columns.filter(
    (column) =>
      weeksShown !== 'all' && weekOf(column) !== null && !openWeeks.has(weekOf(column) ?? 0),
  )
  const columns = view.columns.flatMap((column): WeaveColumn[] =>
    !folded.includes(column)
      ? [column]
      : column === folded.at(-1)
        ? [{ key: restKey, title: 'Others' }]
        : [],
  )
  const shownRows = rows.map((row) => ({
    ...row,
    crossings: [
      ...row.crossings,
      {
        column: restKey,
        strands: sampleStrands(
          row.crossings
            .filter((crossing) => folded.some((column) => column.key === crossing.column))
            .flatMap((crossing) => crossing.strands),
        ),
      },
    ],
  }))
  const width =
    weeksShown === 'all' ? 26 : Math.min(72, Math.max(30, Math.floor(690 / columns.length) - 6))
  const mayCheck = may(me, 'check courses')
  return (
    <Page
      title="Is the term in order?"
      beside={
        <>
          {run !== null && (
            <CheckProgress
              key={run}
              run={run}
              onOver={() => {
                setRun(null)
                void client.invalidateQueries()
              }}
            />
          )}
          <label className="flex items-baseline gap-1 text-ink-2">
            as of
            <input
              type="date"
              className="border border-line-strong bg-sheet px-2 py-1 text-ink"
              value={asOf}
              onChange={(event) => set({ asOf: event.target.value })}
            />
          </label>
          {mayCheck && (
            <Button
              shape="main"
              disabled={check.isPending || run !== null}
              onClick={() => check.mutate()}
            >
              Check {plural(view.totals.courses, 'course')}
            </Button>
          )}
        </>
      }
    >
      <p className="text-ink-2">
        The weave: one row for each course, one strand for each thing its template asks.
      </p>
      <Problem error={check.error} />
      <div className="mt-3 flex flex-wrap items-end justify-between gap-x-10 gap-y-3">
        <div className="flex flex-wrap gap-x-12">
          <Count
            figure={`${view.totals.ready} of ${view.totals.courses}`}
            says={`courses ready, as of ${asOf === me.today ? 'today' : asOf}`}
            tone=""
          />
          <Count figure={String(view.totals.openMusts)} says="open musts" tone="text-rust" />
          <Count figure={String(view.totals.openShoulds)} says="open shoulds" tone="text-straw" />
          <Count
            figure={String(view.totals.cannotTell)}
            says="could not be told"
            tone="text-slate"
          />
        </div>
        <Legend />
      </div>
      {view.unchecked > 0 && (
        <p className="mt-3 border-l-4 border-straw bg-straw-soft px-3 py-1.5">
          {plural(view.unchecked, 'teaching course is', 'teaching courses are')} not in the weave:
          never checked as of this date, or under no template.
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
        <div className="flex flex-wrap gap-2" role="group" aria-label="Department">
          <Choice pressed={department === ''} onClick={() => set({ department: '' })}>
            All departments
          </Choice>
          {departments.map((name) => (
            <Choice
              key={name}
              pressed={department === name}
              onClick={() => set({ department: name })}
            >
              {name}
            </Choice>
          ))}
        </div>
        <div className="flex gap-4">
          <Pick
            inline
            label="Courses sorted by"
            value={order}
            onChange={(event) => set({ order: event.target.value })}
            options={[
              { value: 'musts', text: 'open musts' },
              { value: 'shoulds', text: 'open shoulds' },
              { value: 'code', text: 'code' },
            ]}
          />
          <Pick
            inline
            label="weeks"
            value={weeksShown}
            onChange={(event) => set({ weeks: event.target.value })}
            options={[
              { value: 'near', text: 'with something open' },
              { value: 'all', text: 'all' },
            ]}
          />
        </div>
      </div>
      <div className="mt-3 grid gap-x-6 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="overflow-x-auto">
          {rows.length === 0 ? (
            <p className="py-8 text-ink-2">
              No course was checked as of this date. Press “Check” above: it runs in the background
              and the weave appears.
            </p>
          ) : (
            <table>
              <caption className="sr-only">Courses by parts of their templates</caption>
              <thead>
                <tr>
                  <th scope="col">
                    <span className="sr-only">Course</span>
                  </th>
                  <th scope="col">
                    <span className="sr-only">Open musts</span>
                  </th>
                  {columns.map((column) => (
                    <th
                      key={column.key}
                      scope="col"
                      className="px-[3px] pb-1 text-left text-[12px] font-semibold"
                    >
                      <span
                        className="block truncate border-b border-line-strong"
                        style={{ width }}
                        title={column.title}
                      >
                        {weeksShown === 'all' && weekOf(column) !== null
                          ? weekOf(column)
                          : column.title}
                      </span>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {shownRows.map((row) => (
                  <tr key={row.course.id} className="hover:bg-band">
                    <th scope="row" className="pr-3 text-left font-normal whitespace-nowrap">
                      <Link
                        to={`/courses/${row.course.id}`}
                        className="flex max-w-[15rem] gap-1 leading-[24px]"
                        title={`${row.course.code} ${row.course.title}, ${apart.get(row.course.platformId)}`}
                      >
                        <span className="truncate">
                          {row.course.code} {row.course.title}
                        </span>
                        <span className="max-w-[4.5rem] shrink-0 truncate text-ink-3">
                          {apart.get(row.course.platformId)}
                        </span>
                      </Link>
                    </th>
                    <td
                      className={`pr-2 text-right ${worst(row) > 0 ? 'font-semibold text-rust' : 'text-ink-3'}`}
                    >
                      {worst(row) > 0
                        ? worst(row)
                        : row.course.check?.readiness === 'ready'
                          ? 'ready'
                          : 'unseen'}
                    </td>
                    <RowCells
                      row={row}
                      columns={columns}
                      width={width}
                      onShow={(row, column, crossing) => setPointed({ row: row, column, crossing })}
                    />
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
        <aside>
          <h2 className="text-[18px]">Mend first</h2>
          {may(me, 'mend courses') && (
            <Link className="text-tide underline underline-offset-2" to="/conformance/mends">
              What can be mended in all courses at once
            </Link>
          )}
          <MendFirst actions={view.mendFirst} />
          <h2 className="mt-6 text-[18px]">Under the pointer</h2>
          <div className="mt-2 min-h-24 border border-line-strong bg-sheet p-3">
            {pointed ? (
              <>
                <p className="font-semibold">
                  {pointed.row.course.code} {pointed.row.course.title}
                </p>
                <p className="text-ink-2">{pointed.column.title}</p>
                <p className="mt-1">{tellStrands(pointed.crossing.strands)}.</p>
                <p className="mt-2">
                  <Link
                    className="text-tide underline"
                    to={crossingAddress(pointed.row, pointed.column.key)}
                  >
                    Show the evidence
                  </Link>
                </p>
              </>
            ) : (
              <p className="text-ink-2">
                Point at a crossing, or go to it with Tab, to read what it says; press it for the
                evidence.
              </p>
            )}
          </div>
        </aside>
      </div>
    </Page>
  )
}
