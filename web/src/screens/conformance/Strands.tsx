import type { Strand } from '@wickerframe/core'

/** How each strand is told in words, for the legend and for those who do not see it. */
export const strandWords: Record<Strand, string> = {
  met: 'met',
  'open-must': 'open must',
  'open-should': 'open should',
  waived: 'waived',
  'cannot-tell': 'could not be told',
  'not-due-yet': 'not due yet',
  'not-applicable': 'not applicable',
}

const height = 24
const middle = height / 2

interface Run {
  strand: Strand
  from: number
  to: number
}

/** Neighbouring strands of one kind drawn as one stroke. */
const runsOf = (strands: readonly Strand[], step: number): Run[] => {
  const runs: Run[] = []
  strands.forEach((strand, i) => {
    const last = runs.at(-1)
    if (last && last.strand === strand && strand !== 'open-must') last.to = (i + 1) * step
    else runs.push({ strand, from: i * step, to: (i + 1) * step })
  })
  return runs
}

/** The frayed ends of a broken strand, around a point. */
const Frayed = ({ at }: { at: number }) => (
  <g stroke="var(--color-rust)" strokeWidth="1.6" fill="none">
    <rect
      x={at - 7}
      y={middle - 6}
      width="14"
      height="12"
      fill="var(--color-rust-soft)"
      stroke="none"
    />
    <path
      d={`M${at - 9} ${middle}h6 M${at - 3} ${middle}l-3 -4 M${at - 3} ${middle}l-3 4 M${at + 9} ${middle}h-6 M${at + 3} ${middle}l3 -4 M${at + 3} ${middle}l3 4`}
    />
  </g>
)

/** What one course shows in one column: its requirements as a strand woven over and under the warp. */
export const Strands = ({ strands, width }: { strands: readonly Strand[]; width: number }) => {
  const warps = Math.max(2, Math.round(width / 12))
  const gap = width / warps
  const step = strands.length === 0 ? 0 : width / strands.length
  return (
    <svg width={width} height={height} aria-hidden="true" className="block">
      {Array.from({ length: warps }, (_, i) => (
        <line
          key={i}
          x1={(i + 0.5) * gap}
          x2={(i + 0.5) * gap}
          y1="0"
          y2={height}
          stroke="var(--color-warp)"
          strokeWidth="2.4"
        />
      ))}
      {runsOf(strands, step).map(({ strand, from, to }, i) => {
        if (strand === 'met')
          return (
            <line
              key={i}
              x1={from}
              x2={to}
              y1={middle}
              y2={middle}
              stroke="var(--color-ink)"
              strokeWidth="5"
            />
          )
        if (strand === 'open-should')
          return (
            <line
              key={i}
              x1={from}
              x2={to}
              y1={middle}
              y2={middle}
              stroke="var(--color-straw-strand)"
              strokeWidth="2"
            />
          )
        if (strand === 'waived')
          return (
            <path
              key={i}
              d={`M${from} ${middle - 2.5}H${to}M${from} ${middle + 2.5}H${to}`}
              fill="none"
              stroke="var(--color-slate)"
              strokeWidth="1.2"
            />
          )
        if (strand === 'not-due-yet')
          return (
            <line
              key={i}
              x1={from}
              x2={to}
              y1={middle}
              y2={middle}
              stroke="var(--color-slate)"
              strokeWidth="0.6"
            />
          )
        if (strand === 'cannot-tell')
          return (
            <text
              key={i}
              x={(from + to) / 2}
              y={middle + 4}
              textAnchor="middle"
              fontSize="11"
              fill="var(--color-slate)"
            >
              ?
            </text>
          )
        return null
      })}
      {/* The warp passes over every other crossing, so that the strand is woven and not laid on. */}
      {Array.from({ length: warps }, (_, i) => i)
        .filter((i) => i % 2 === 1)
        .map((i) => (
          <line
            key={i}
            x1={(i + 0.5) * gap}
            x2={(i + 0.5) * gap}
            y1={middle - 3.5}
            y2={middle + 3.5}
            stroke="var(--color-warp)"
            strokeWidth="2.4"
          />
        ))}
      {strands.map((strand, i) =>
        strand === 'open-must' ? (
          <Frayed key={i} at={Math.min(width - 9, Math.max(9, (i + 0.5) * step))} />
        ) : null,
      )}
    </svg>
  )
}

/** What a crossing says, in words. */
export const tellStrands = (strands: readonly Strand[]): string => {
  const counts = new Map<Strand, number>()
  for (const strand of strands) counts.set(strand, (counts.get(strand) ?? 0) + 1)
  return (
    [...counts].map(([strand, count]) => `${count} ${strandWords[strand]}`).join(', ') ||
    'nothing applies'
  )
}

export const Legend = () => (
  <ul className="flex flex-wrap items-center gap-4 text-ink-2">
    {(['met', 'open-must', 'open-should', 'waived', 'not-due-yet', 'cannot-tell'] as const).map(
      (strand) => (
        <li key={strand} className="flex items-center gap-1.5">
          <Strands strands={[strand]} width={24} /> {strandWords[strand]}
        </li>
      ),
    )}
  </ul>
)
