import { useMutation } from '@tanstack/react-query'
import { useCallback, useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { Me } from '@wickerframe/contract'
import { isPlainDate } from '@wickerframe/core'
import { bandings, type Banding } from '@wickerframe/contract/bands'
import { may } from '@wickerframe/contract/capabilities'
import { addressOf, call } from '../../api/client.ts'
import { useConformance, useFreshChecks, useRun } from '../../api/queries.ts'
import { Button, Choice, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { ReportMenu } from '../../controls/ReportMenu.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { DateField } from '../../controls/date/DateField.tsx'
import { useAddress } from '../../shell/useAddress.ts'
import { CheckProgress } from './CheckProgress.tsx'
import { isOver } from '../rollouts/runWords.ts'
import { MendFirst } from './MendFirst.tsx'
import { bandsOf, orders, type Band } from './weave/bands.ts'
import { Evidence } from './weave/Evidence.tsx'
import { layoutOf, weeksNear, type Layout } from './weave/layout.ts'
import { Legend } from './weave/Legend.tsx'
import { namesWidth, Weave, type Place } from './weave/Weave.tsx'

const Count = ({ figure, says, tone }: { figure: string; says: string; tone: string }) => (
  <p>
    <span className={`block font-serif text-[22px] font-semibold ${tone}`}>{figure}</span>
    <span className="text-ink-2">{says}</span>
  </p>
)

const wordsOfBanding: Readonly<Record<Banding, string>> = {
  department: 'department',
  template: 'template',
  instructor: 'instructor',
  length: 'length',
}
const oneOf = <T extends string>(known: readonly T[], text: string | null): T =>
  known.find((one) => one === text) ?? (known[0] as T)
/** What else there is to know of how courses conform. */
const beside = [
  ['/conformance/days', 'Day by day'],
  ['/conformance/ahead', 'The next four weeks'],
  ['/conformance/waivers', 'Waivers'],
  ['/conformance/rules', 'How the rules fared'],
  ['/conformance/schedules', 'By schedule'],
] as const

/** So few courses are shown at once; more are looked at from afar first. */
const fewCourses = 60
/** Place for the strands until it is known how wide the window is. */
const placeAtFirst = 690
const scrollBar = 16

/** How wide an element is, now and whenever that changes. */
const useWidth = (): readonly [number | null, (element: HTMLElement | null) => void] => {
  const [width, setWidth] = useState<number | null>(null)
  const watch = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined
    const observer = new ResizeObserver(() => setWidth(element.clientWidth))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [width, watch]
}

/** The crossing that the address names: a course, and the key of its column; null where it names none that is shown. */
const placeAt = (at: string | null, bands: readonly Band[], layout: Layout): Place | null => {
  if (at === null) return null
  const [id, ...key] = at.split('~')
  for (const band of bands) {
    const row = band.rows.find((one) => String(one.id) === id)
    if (!row) continue
    const column = layout.columns.findIndex((one) => one.key === key.join('~'))
    return { band: band.key, row, column: column < 0 ? null : column }
  }
  return null
}

export const ConformanceScreen = ({ me }: { me: Me }) => {
  const { search, set } = useAddress()
  const asOf = search.get('asOf') ?? me.today
  const banding = oneOf(bandings, search.get('by'))
  const order = oneOf(orders, search.get('order'))
  const weeks = search.get('weeks') === 'all' ? 'all' : 'near'
  const onlyOpen = search.get('shown') === 'open'
  const opened = search.get('open')
  const conformance = useConformance(asOf)
  useFreshChecks()
  const [run, setRun] = useState<number | null>(null)
  const checking = useRun(run).data
  const isChecking = run !== null && !(checking && isOver(checking))
  const [looked, setLooked] = useState<Place | null>(null)
  const check = useMutation({
    mutationFn: () => call('checkCourses', { body: { asOf } }),
    onSuccess: ({ run: id }) => setRun(id),
  })
  const view = conformance.data
  const rows = useMemo(
    () =>
      (view?.rows ?? []).filter(
        ({ openMusts, openShoulds }) => !onlyOpen || openMusts + openShoulds > 0,
      ),
    [view, onlyOpen],
  )
  const bands = useMemo(() => bandsOf(rows, banding, order), [rows, banding, order])
  const apart = useMemo(() => tellApart(view?.rows ?? []), [view])
  const [width, watchWidth] = useWidth()
  const place = width === null ? placeAtFirst : width - namesWidth - scrollBar
  const layout = useMemo(
    () =>
      layoutOf(
        view?.groups ?? [],
        weeks === 'all' ? null : weeksNear(view?.groups ?? [], view?.rows ?? []),
        place,
      ),
    [view, weeks, place],
  )
  const open = useMemo(
    () =>
      new Set(
        opened === null
          ? rows.length <= fewCourses
            ? bands.map(({ key }) => key)
            : []
          : opened.split('~'),
      ),
    [opened, bands, rows],
  )
  const toggle = useCallback(
    (band: string) => {
      const next = new Set(open)
      if (!next.delete(band)) next.add(band)
      // An empty list is told from none: everything was closed.
      set({ open: [...next].join('~') || '-' })
    },
    [open, set],
  )
  const at = search.get('at')
  const pressed = useMemo(() => placeAt(at, bands, layout), [at, bands, layout])
  const press = useCallback(
    ({ row, column }: Place) =>
      set({ at: row && `${row.id}~${(column !== null && layout.columns[column]?.key) || ''}` }),
    [set, layout],
  )
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

  // Somebody who opened bands looks at these.
  const ofBands = opened === null || opened === '-' ? null : opened
  // What was pressed stays beside the weave until something else is; what is only pointed at, while it is.
  const shown = pressed ?? looked
  const mayCheck = may(me, 'check courses')
  return (
    <Page
      title="Is the term in order?"
      beside={
        <>
          {checking && <CheckProgress key={checking.id} detail={checking} />}
          <DateField
            label="as of"
            className="flex-row! items-baseline gap-1.5!"
            value={asOf}
            near={me.today}
            required
            onPick={(day) => isPlainDate(day) && set({ asOf: day })}
          />
          {mayCheck && (
            <Button
              shape="main"
              disabled={check.isPending || isChecking}
              onClick={() => check.mutate()}
            >
              Check {plural(view.totals.courses, 'course')}
            </Button>
          )}
        </>
      }
    >
      <div className="flex flex-wrap items-baseline gap-x-6 text-ink-2">
        <p>One row for each course, one strand for each thing its template asks.</p>
        <nav aria-label="Of conformance" className="flex flex-wrap gap-x-4">
          {beside.map(([to, text]) => (
            <Link key={to} className="text-tide underline underline-offset-2" to={to}>
              {text}
            </Link>
          ))}
        </nav>
      </div>
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
      {view.checkedAgain > 0 && (
        <p role="status" className="mt-3 border-l-4 border-straw bg-straw-soft px-3 py-1.5">
          {plural(view.checkedAgain, 'course is', 'courses are')} being checked again after a waiver
          for many; until then they are shown as they were.
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center justify-between gap-3">
        <div className="flex flex-wrap items-baseline gap-2" role="group" aria-label="Bands by">
          <span className="text-ink-2">Bands by</span>
          {bandings.map((one) => (
            <Choice
              key={one}
              pressed={banding === one}
              onClick={() => set({ by: one === 'department' ? null : one, open: null })}
            >
              {wordsOfBanding[one]}
            </Choice>
          ))}
          <span className="mx-1 text-ink-3" aria-hidden>
            ·
          </span>
          <Choice pressed={onlyOpen} onClick={() => set({ shown: onlyOpen ? null : 'open' })}>
            only what is open
          </Choice>
        </div>
        <div className="flex items-baseline gap-4">
          <ReportMenu
            label={ofBands === null ? 'report' : 'report of the open bands'}
            addressOf={(format) =>
              addressOf('collegeReport', {
                query: {
                  asOf,
                  format,
                  by: banding,
                  shown: onlyOpen ? 'open' : 'all',
                  ...(ofBands === null ? {} : { of: ofBands }),
                },
              })
            }
          />
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
            value={weeks}
            onChange={(event) => set({ weeks: event.target.value })}
            options={[
              { value: 'near', text: 'with something open' },
              { value: 'all', text: 'all' },
            ]}
          />
        </div>
      </div>
      <div className="mt-3 grid gap-x-6 lg:grid-cols-[minmax(0,1fr)_19rem]">
        <div className="min-w-0" ref={watchWidth}>
          {rows.length === 0 ? (
            <p className="py-8 text-ink-2">
              {view.rows.length === 0
                ? 'No course was checked as of this date. Press “Check” above: it runs in the background and the weave appears.'
                : 'Nothing is open in any course.'}
            </p>
          ) : (
            <Weave
              bands={bands}
              open={open}
              layout={layout}
              apart={apart}
              onToggle={toggle}
              onLook={setLooked}
              onPress={press}
            />
          )}
        </div>
        <aside>
          <section className="min-h-28 border border-line-strong bg-sheet p-3">
            <h2 className="flex items-baseline justify-between text-[18px]">
              {pressed ? 'Pressed' : 'Under the pointer'}
              {pressed && (
                <Button shape="word" className="py-0!" onClick={() => set({ at: null })}>
                  let go
                </Button>
              )}
            </h2>
            <div className="mt-1">
              <Evidence
                key={shown?.row ? `${shown.row.id} ${shown.column}` : ''}
                band={bands.find(({ key }) => key === shown?.band) ?? null}
                row={shown?.row ?? null}
                column={shown?.column ?? null}
                layout={layout}
                me={me}
                asOf={asOf}
              />
            </div>
          </section>
          <h2 className="mt-5 text-[18px]">Mend first</h2>
          {may(me, 'mend courses') && (
            <Link className="text-tide underline underline-offset-2" to="/conformance/mends">
              What can be mended in all courses at once
            </Link>
          )}
          <MendFirst actions={view.mendFirst} me={me} acts={asOf === me.today} />
        </aside>
      </div>
    </Page>
  )
}
