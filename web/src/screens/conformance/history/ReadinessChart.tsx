import { useId } from 'react'
import { formatDate, type ReadinessDay } from '@wickerframe/core'
import { stackOf, type Layer } from './stack.ts'

const height = 96
const fills: Readonly<Record<Layer, string>> = {
  ready: 'fill-tide-soft',
  asFarAsSeen: 'fill-straw-soft',
  notReady: '',
}
const dayWords = 'd MMM'

/** How many courses stand how, in words. */
const courseWords = ({ ready, asFarAsSeen, notReady }: ReadinessDay): string =>
  `${ready} ready${asFarAsSeen > 0 ? `, ${asFarAsSeen} ready as far as seen` : ''}, ${notReady} not`

/** Days drawn one after another: what is ready below, what is not hatched on top of it. @param says what a day comes to, in words */
export const ReadinessChart = ({
  title,
  days,
  width,
  says = courseWords,
}: {
  title: string
  days: readonly ReadinessDay[]
  width: number
  says?: (day: ReadinessDay) => string
}) => {
  const id = useId()
  const most = Math.max(
    ...days.map(({ ready, asFarAsSeen, notReady }) => ready + asFarAsSeen + notReady),
    1,
  )
  const { paths, ticks, counts } = stackOf(days, { width: width - 34, height, most })
  const first = days[0]
  const last = days.at(-1)
  return (
    <svg
      viewBox={`0 0 ${width} ${height + 24}`}
      width={width}
      role="img"
      aria-label={`${title}. ${[first, last].flatMap((day) => (day ? `${formatDate(day.day, dayWords)}: ${says(day)}` : [])).join('; ')}.`}
      className="block h-auto max-w-full overflow-visible"
    >
      <defs>
        <pattern
          id={id}
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="6" height="6" className="fill-rust-soft" />
          <line x1="0" y1="0" x2="0" y2="6" className="stroke-rust" strokeWidth="2" />
        </pattern>
      </defs>
      <g transform="translate(30,4)">
        {counts.map(({ at, count }) => (
          <g key={count}>
            <line x1="0" x2={width - 34} y1={at} y2={at} className="stroke-line" />
            <text
              x="-6"
              y={at + 4}
              textAnchor="end"
              className="fill-ink-2 text-[11px] tabular-nums"
            >
              {count}
            </text>
          </g>
        ))}
        {paths.map(({ layer, path }) => (
          <path
            key={layer}
            d={path}
            className={fills[layer]}
            {...(layer === 'notReady' ? { fill: `url(#${id})` } : {})}
          />
        ))}
        <line x1="0" x2={width - 34} y1={height} y2={height} className="stroke-line-strong" />
        {ticks.map(({ at, day }) => (
          <text key={day} x={at} y={height + 15} className="fill-ink-2 text-[11px]">
            {formatDate(day, dayWords)}
          </text>
        ))}
      </g>
    </svg>
  )
}
