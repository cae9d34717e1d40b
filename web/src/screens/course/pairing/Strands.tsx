import { curveBumpX, link } from 'd3'
import { memo } from 'react'
import type { PairingRows, Strand, StrandLook } from './pairingRows.ts'

export const strandsWidth = 150

const strokes: Record<StrandLook, { stroke: string; width: number; dash?: string }> = {
  met: { stroke: 'var(--color-ink)', width: 3.4 },
  'open-must': { stroke: 'var(--color-rust)', width: 2.6 },
  'open-should': { stroke: 'var(--color-straw-strand)', width: 2 },
  doubtful: { stroke: 'var(--color-slate)', width: 2.4, dash: '1 5' },
  'not-due-yet': { stroke: 'var(--color-slate)', width: 0.7 },
}
const curve = link<
  unknown,
  { source: [number, number]; target: [number, number] },
  [number, number]
>(curveBumpX)

const OneStrand = ({ strand, from, to }: { strand: Strand; from: number; to: number }) => {
  const look = strokes[strand.look]
  const middle = (from + to) / 2
  return (
    <g>
      <path
        d={curve({ source: [0, from], target: [strandsWidth, to] }) ?? ''}
        fill="none"
        stroke={look.stroke}
        strokeWidth={look.width}
        strokeDasharray={look.dash}
        strokeLinecap="round"
      />
      {strand.look === 'open-must' && (
        <g>
          <rect
            x={strandsWidth / 2 - 9}
            y={middle - 6}
            width="18"
            height="12"
            fill="var(--color-linen)"
          />
          <path
            d={`M${strandsWidth / 2 - 4} ${middle}l-5 -5 M${strandsWidth / 2 - 4} ${middle}l-5 5 M${strandsWidth / 2 + 4} ${middle}l5 -5 M${strandsWidth / 2 + 4} ${middle}l5 5`}
            stroke="var(--color-rust)"
            strokeWidth="1.6"
            fill="none"
          />
        </g>
      )}
    </g>
  )
}

/** A strand that leads nowhere: its end frays where nothing was found. */
const LooseEnd = ({ at, open }: { at: number; open: boolean }) => {
  const colour = open ? 'var(--color-rust)' : 'var(--color-slate)'
  return (
    <path
      d={`M0 ${at}h16c8 0 10 8 18 12 M34 ${at + 12}l-1 -6 M34 ${at + 12}l-7 1`}
      fill="none"
      stroke={colour}
      strokeWidth={open ? 2.2 : 1.4}
    />
  )
}

type Places = ReadonlyMap<string, number>

/** All strands and loose ends; drawn once for a set of rows, whatever is pointed at. */
const AllStrands = memo(
  ({ rows, left, right }: { rows: PairingRows; left: Places; right: Places }) => (
    <>
      {rows.strands.map((strand) => {
        const from = left.get(strand.left)
        const to = right.get(strand.right)
        return from === undefined || to === undefined ? null : (
          <OneStrand key={strand.left} strand={strand} from={from} to={to} />
        )
      })}
      {rows.left
        .filter((row) => row.loose !== null)
        .map((row) => (
          <LooseEnd key={row.id} at={left.get(row.id) ?? 0} open={row.loose === 'open'} />
        ))}
      {rows.right
        .filter((row) => row.extra && !row.isModule)
        .map((row) => {
          const at = right.get(row.id) ?? 0
          return (
            <path
              key={row.id}
              d={`M${strandsWidth} ${at}h-12c-8 0 -8 8 -14 12`}
              fill="none"
              stroke="var(--color-slate)"
              strokeWidth="1.4"
            />
          )
        })}
    </>
  ),
)
AllStrands.displayName = 'AllStrands'

/** The strands between the two columns; the chosen one stands out, the others step back. The table beside it says the same in words. */
export const Strands = ({
  rows,
  left,
  right,
  height,
  chosen,
}: {
  rows: PairingRows
  left: Places
  right: Places
  height: number
  chosen: Strand | null
}) => {
  const from = chosen ? left.get(chosen.left) : undefined
  const to = chosen ? right.get(chosen.right) : undefined
  const missing = rows.left.filter((row) => row.loose === 'open').length
  return (
    <svg
      width={strandsWidth}
      height={height + 20}
      className="mt-[18px] block"
      role="img"
      aria-label={`${rows.strands.length} strands join expected and found, ${rows.strands.filter((strand) => strand.look === 'doubtful').length} of them doubtful; ${missing} loose ends are missing parts`}
    >
      <g opacity={chosen ? 0.3 : 1}>
        <AllStrands rows={rows} left={left} right={right} />
      </g>
      {chosen && from !== undefined && to !== undefined && (
        <OneStrand strand={chosen} from={from} to={to} />
      )}
    </svg>
  )
}
