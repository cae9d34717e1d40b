import { link, curveBumpX } from 'd3'
import { useMemo, useState } from 'react'
import type { CheckResult, Course, Facts, Template } from '@wickerframe/core'
import { Choice } from '../../controls/controls.tsx'
import { pairingRows, type Join, type PairingRows, type StrandLook } from './pairingRows.ts'

const rowHeight = 31
const moduleGap = 12
/** Middle of a card and of a module's line, from the top of the row. */
const cardMiddle = 13
const moduleMiddle = 17

/** Where the middle of each row stands, in pixels from the top. */
const layOut = (rows: readonly { id: string; isModule: boolean }[]): { at: Map<string, number>; height: number } => {
  const at = new Map<string, number>()
  let y = 0
  for (const row of rows) {
    if (row.isModule) y += moduleGap
    at.set(row.id, y + (row.isModule ? moduleMiddle : cardMiddle))
    y += rowHeight
  }
  return { at, height: y }
}

const strokes: Record<StrandLook, { stroke: string; width: number; dash?: string }> = {
  met: { stroke: 'var(--color-ink)', width: 3.4 },
  'open-must': { stroke: 'var(--color-rust)', width: 2.6 },
  'open-should': { stroke: 'var(--color-straw-strand)', width: 2 },
  doubtful: { stroke: 'var(--color-slate)', width: 2.4, dash: '1 5' },
  'not-due-yet': { stroke: 'var(--color-slate)', width: 0.7 },
}

const curve = link<unknown, { source: [number, number]; target: [number, number] }, [number, number]>(curveBumpX)
const width = 150

const Strand = ({ join, from, to, chosen }: { join: Join; from: number; to: number; chosen: boolean }) => {
  const look = strokes[join.look]
  const middle = (from + to) / 2
  return (
    <g opacity={chosen ? 1 : 0.35}>
      <path d={curve({ source: [0, from], target: [width, to] }) ?? ''} fill="none" stroke={look.stroke} strokeWidth={look.width} strokeDasharray={look.dash} strokeLinecap="round" />
      {join.look === 'open-must' && (
        <g>
          <rect x={width / 2 - 9} y={middle - 6} width="18" height="12" fill="var(--color-linen)" />
          <path d={`M${width / 2 - 4} ${middle}l-5 -5 M${width / 2 - 4} ${middle}l-5 5 M${width / 2 + 4} ${middle}l5 -5 M${width / 2 + 4} ${middle}l5 5`} stroke="var(--color-rust)" strokeWidth="1.6" fill="none" />
        </g>
      )}
    </g>
  )
}

/** A strand that leads nowhere: its end frays where nothing was found. */
const LooseEnd = ({ at, open }: { at: number; open: boolean }) => {
  const colour = open ? 'var(--color-rust)' : 'var(--color-slate)'
  return <path d={`M0 ${at}h16c8 0 10 8 18 12 M34 ${at + 12}l-1 -6 M34 ${at + 12}l-7 1`} fill="none" stroke={colour} strokeWidth={open ? 2.2 : 1.4} />
}

const Columns = ({ rows }: { rows: PairingRows }) => {
  const [pointed, setPointed] = useState<string | null>(null)
  const left = useMemo(() => layOut(rows.left), [rows])
  const right = useMemo(() => layOut(rows.right), [rows])
  const partner = new Map(rows.joins.flatMap((join) => [[join.left, join], [join.right, join]]))
  const chosen = pointed === null ? null : partner.get(pointed)
  const height = Math.max(left.height, right.height)
  const border = (look: string | null, loose: string | null) => (loose === 'open' ? 'border-dashed border-rust text-rust' : loose ? 'border-dashed border-line text-ink-3' : look === null ? 'border-dashed border-line' : 'border-line')
  return (
    <div className="grid min-w-[38rem] grid-cols-[minmax(0,1fr)_150px_minmax(0,1fr)]">
      <div>
        <h3 className="h-[18px] font-sans text-[12px] leading-[18px] font-normal text-ink-2">Expected by the template</h3>
        <ul>
          {rows.left.map((row) => (
            <li key={row.id} style={{ height: rowHeight, marginTop: row.isModule ? moduleGap : 0 }} onPointerEnter={() => setPointed(row.id)} onPointerLeave={() => setPointed(null)}>
              {row.isModule ? (
                <p className={`truncate border-b border-line-strong pt-1.5 font-serif font-semibold ${row.loose === 'open' ? 'text-rust' : ''}`} title={row.name}>{row.name}</p>
              ) : (
                <p className={`flex h-[26px] items-center gap-2 border bg-sheet px-2 ${border(row.look, row.loose)}`} title={partner.get(row.id)?.says ?? `nothing was found for ${row.name}`}>
                  <span className="w-8 shrink-0 font-mono text-[11px] text-ink-3">{row.kind}</span>
                  <span className="truncate">{row.name}</span>
                  <span className="ml-auto shrink-0 font-mono text-[11px]">{row.loose === 'open' ? 'missing' : row.strength}</span>
                </p>
              )}
            </li>
          ))}
        </ul>
      </div>
      <svg width={width} height={height + 20} className="mt-[18px] block" role="img" aria-label={`${rows.joins.length} strands join expected and found; ${rows.left.filter((row) => row.loose === 'open').length} loose ends are missing parts`}>
        {rows.joins.map((join) => {
          const from = left.at.get(join.left)
          const to = right.at.get(join.right)
          return from === undefined || to === undefined ? null : <Strand key={join.left} join={join} from={from} to={to} chosen={chosen === null || chosen === join || chosen === undefined} />
        })}
        {rows.left.filter((row) => row.loose !== null).map((row) => <LooseEnd key={row.id} at={left.at.get(row.id) ?? 0} open={row.loose === 'open'} />)}
        {rows.right.filter((row) => row.extra && !row.isModule).map((row) => {
          const at = right.at.get(row.id) ?? 0
          return <path key={row.id} d={`M${width} ${at}h-12c-8 0 -8 8 -14 12`} fill="none" stroke="var(--color-slate)" strokeWidth="1.4" />
        })}
      </svg>
      <div>
        <h3 className="h-[18px] font-sans text-[12px] leading-[18px] font-normal text-ink-2">Found in the course</h3>
        <ul>
          {rows.right.map((row) => (
            <li key={row.id} style={{ height: rowHeight, marginTop: row.isModule ? moduleGap : 0 }} onPointerEnter={() => setPointed(row.id)} onPointerLeave={() => setPointed(null)}>
              {row.isModule ? (
                <p className="flex gap-2 border-b border-line-strong pt-1.5 font-serif font-semibold"><span className="truncate" title={row.name}>{row.name}</span>{row.note && <span className="ml-auto shrink-0 font-sans text-[12px] font-normal text-ink-3">{row.note}</span>}</p>
              ) : (
                <p className={`flex h-[26px] items-center gap-2 border bg-sheet px-2 ${row.extra ? 'border-dashed border-line-strong text-ink-2' : 'border-line'}`} title={partner.get(row.id)?.says ?? 'nothing in the template expects it'}>
                  <span className="w-8 shrink-0 font-mono text-[11px] text-ink-3">{row.kind}</span>
                  <span className="truncate">{row.name}</span>
                  <span className="ml-auto shrink-0 font-mono text-[11px] text-ink-3">{row.extra ? 'own' : row.note}</span>
                </p>
              )}
            </li>
          ))}
        </ul>
      </div>
    </div>
  )
}

/** Expected on the left, found on the right, strands joining what was matched. */
export const PairingView = ({ template, facts, course, result }: { template: Template; facts: Facts; course: Course; result: CheckResult }) => {
  const [only, setOnly] = useState(true)
  const all = useMemo(() => pairingRows(template, facts, course, result), [template, facts, course, result])
  const rows = useMemo(() => (all && only ? nearOpen(all) : all), [all, only])
  if (!all || !rows) return <p className="py-6 text-ink-2">The template does not fit this course, so nothing can be paired.</p>
  const hidden = all.left.length - rows.left.length
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Choice pressed={only} onClick={() => setOnly(true)}>Modules with something open</Choice>
        <Choice pressed={!only} onClick={() => setOnly(false)}>The whole course</Choice>
        {only && hidden > 0 && <span className="text-ink-3">{hidden} parts that are in order are folded away</span>}
      </div>
      {rows.left.length === 0 && rows.right.length === 0 ? <p className="py-6 text-ink-2">Everything is where the template has it.</p> : <div className="overflow-x-auto"><Columns rows={rows} /></div>}
    </div>
  )
}

/** Only the modules in which something is missing, open, doubtful or of the course's own. */
const nearOpen = (rows: PairingRows): PairingRows => {
  const groupsOf = <T extends { isModule: boolean }>(list: readonly T[]): T[][] => {
    const groups: T[][] = []
    for (const row of list) {
      if (row.isModule || groups.length === 0) groups.push([row])
      else groups.at(-1)?.push(row)
    }
    return groups
  }
  const lookOf = new Map(rows.joins.flatMap((join) => [[join.left, join.look], [join.right, join.look]]))
  const partnerOf = new Map(rows.joins.flatMap((join) => [[join.left, join.right], [join.right, join.left]]))
  const openLook = (id: string) => (lookOf.get(id) ?? 'met') !== 'met'
  const left = groupsOf(rows.left).filter((group) => group.some((row) => row.loose === 'open' || openLook(row.id)))
  const right = groupsOf(rows.right).filter((group) => group.some((row) => row.extra || openLook(row.id)))
  const wantedLeft = new Set([...left.flat().map((row) => row.id), ...right.flat().flatMap((row) => partnerOf.get(row.id) ?? [])])
  const wantedRight = new Set([...right.flat().map((row) => row.id), ...left.flat().flatMap((row) => partnerOf.get(row.id) ?? [])])
  const keepGroups = <T extends { id: string; isModule: boolean }>(list: readonly T[], wanted: ReadonlySet<string>) => groupsOf(list).filter((group) => group.some((row) => wanted.has(row.id))).flat()
  const shownLeft = keepGroups(rows.left, wantedLeft)
  const shownRight = keepGroups(rows.right, wantedRight)
  const ids = new Set([...shownLeft, ...shownRight].map((row) => row.id))
  return { left: shownLeft, right: shownRight, joins: rows.joins.filter((join) => ids.has(join.left) && ids.has(join.right)) }
}
