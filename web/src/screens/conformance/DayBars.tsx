import { scaleBand, scaleLinear } from 'd3'
import { formatDate } from '@wickerframe/core'

const left = 34
const foot = 34
/** So wide is a day at least that has its number below it. */
const numbered = 14
/** Between two Mondays that are named are so many pixels at least. */
const apart = 52

/** A bar for each day. The day that is looked at stands out; weeks are parted by their Mondays. */
export const DayBars = ({
  days,
  says,
  width,
  height = 150,
  chosen = null,
  onChoose,
}: {
  days: readonly { day: string; count: number }[]
  /** What it shows, to who does not see it. */
  says: string
  width: number
  height?: number
  /** The day that is looked at, `YYYY-MM-DD`; null: none. */
  chosen?: string | null
  onChoose?: (day: string) => void
}) => {
  const most = Math.max(1, ...days.map(({ count }) => count))
  const x = scaleBand(
    days.map(({ day }) => day),
    [left, width],
  ).paddingInner(0.25)
  const y = scaleLinear([0, most], [height, 8])
  const everyMonday = Math.max(1, Math.ceil(apart / (7 * x.step())))
  const mondays = days.flatMap(({ day }) => (formatDate(day, 'EEE') === 'Mon' ? [day] : []))
  const named = new Set(mondays.filter((_, i) => i % everyMonday === 0))
  return (
    <svg
      viewBox={`0 0 ${width} ${height + foot}`}
      width={width}
      role="img"
      aria-label={says}
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
      {days.map(({ day, count }) => {
        const at = x(day) ?? 0
        return (
          <g
            key={day}
            onClick={() => count > 0 && onChoose?.(day)}
            className={onChoose ? 'cursor-pointer' : ''}
          >
            <rect x={at} y={0} width={x.bandwidth()} height={height} fill="transparent" />
            {count > 0 && (
              <rect
                x={at}
                y={y(count)}
                width={x.bandwidth()}
                height={height - y(count)}
                className={day === chosen ? 'fill-rust' : 'fill-tide'}
              />
            )}
            {x.step() >= numbered && (
              <text
                x={at + x.bandwidth() / 2}
                y={height + 14}
                textAnchor="middle"
                className={`text-[11px] ${day === chosen ? 'fill-ink font-semibold' : 'fill-ink-2'}`}
              >
                {formatDate(day, 'd')}
              </text>
            )}
            {named.has(day) && (
              <>
                <line
                  x1={at - 2}
                  x2={at - 2}
                  y1={4}
                  y2={height + foot}
                  className="stroke-line-strong"
                />
                <text x={at} y={height + 29} className="fill-ink-2 text-[11px]">
                  {formatDate(day, 'd MMM')}
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
