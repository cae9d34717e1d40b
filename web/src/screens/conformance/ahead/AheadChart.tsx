import { scaleBand, scaleLinear } from 'd3'
import { formatDate } from '@wickerframe/core'
import type { Ahead } from '@wickerframe/contract'

const height = 150
const left = 34
const foot = 34

/** A bar for each day: how many musts fall due. The day that is looked at stands out; weeks are parted by their Mondays. */
export const AheadChart = ({
  days,
  chosen,
  width,
  onChoose,
}: {
  days: Ahead['days']
  /** The day that is looked at, `YYYY-MM-DD`; null: none. */
  chosen: string | null
  width: number
  onChoose: (day: string) => void
}) => {
  const most = Math.max(1, ...days.map(({ musts }) => musts))
  const x = scaleBand(
    days.map(({ on }) => on),
    [left, width],
  ).paddingInner(0.25)
  const y = scaleLinear([0, most], [height, 8])
  const sum = days.reduce((total, { musts }) => total + musts, 0)
  return (
    <svg
      viewBox={`0 0 ${width} ${height + foot}`}
      width={width}
      role="img"
      aria-label={`Musts that fall due in the next ${days.length} days: ${sum}, at most ${most} on a day. The table below has each day.`}
      className="block h-auto max-w-full"
    >
      {y
        .ticks(3)
        .filter(Number.isInteger)
        .map((count) => (
          <g key={count}>
            <line x1={left} x2={width} y1={y(count)} y2={y(count)} className="stroke-line" />
            <text
              x={left - 6}
              y={y(count) + 4}
              textAnchor="end"
              className="fill-ink-2 text-[11px] tabular-nums"
            >
              {count}
            </text>
          </g>
        ))}
      {days.map(({ on, musts }) => {
        const at = x(on) ?? 0
        const isMonday = formatDate(on, 'EEE') === 'Mon'
        return (
          <g key={on} onClick={() => musts > 0 && onChoose(on)} className="cursor-pointer">
            <rect x={at} y={0} width={x.bandwidth()} height={height} fill="transparent" />
            {musts > 0 && (
              <rect
                x={at}
                y={y(musts)}
                width={x.bandwidth()}
                height={height - y(musts)}
                className={on === chosen ? 'fill-rust' : 'fill-tide'}
              />
            )}
            <text
              x={at + x.bandwidth() / 2}
              y={height + 14}
              textAnchor="middle"
              className={`text-[11px] ${on === chosen ? 'fill-ink font-semibold' : 'fill-ink-2'}`}
            >
              {formatDate(on, 'd')}
            </text>
            {isMonday && (
              <>
                <line
                  x1={at - 2}
                  x2={at - 2}
                  y1={4}
                  y2={height + foot}
                  className="stroke-line-strong"
                />
                <text x={at} y={height + 29} className="fill-ink-2 text-[11px]">
                  {formatDate(on, 'd MMM')}
                </text>
              </>
            )}
          </g>
        )
      })}
      <line x1={left} x2={width} y1={height} y2={height} className="stroke-line-strong" />
    </svg>
  )
}
