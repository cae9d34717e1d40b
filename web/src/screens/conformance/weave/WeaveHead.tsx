import { scaleLinear } from 'd3'
import type { OpenAt } from './bands.ts'
import type { Layout } from './layout.ts'

const barsHeight = 40
/** A week’s title needs so many pixels. */
const roomForTitle = 46
/** Of a week its number; a screen reader and the pointer are told the whole. */
const shortTitle = (key: string, title: string): string =>
  key.startsWith('week:') ? key.slice('week:'.length) : title

/** Above each column how many courses are open there, and what the groups are called. It stays while the rest is scrolled. */
export const WeaveHead = ({
  layout,
  open,
  namesWidth,
}: {
  layout: Layout
  open: readonly OpenAt[]
  namesWidth: number
}) => {
  const most = Math.max(1, ...open.map(({ must, should }) => must + should))
  const height = scaleLinear([0, most], [0, barsHeight - 2])
  const wide = Math.max(3, layout.step - 3)
  return (
    <div role="row" aria-rowindex={1} className="sticky top-0 z-2 flex bg-linen pb-1">
      <span
        role="columnheader"
        className="sticky left-0 z-1 flex shrink-0 items-end bg-linen pb-1 text-[12.5px] text-ink-2"
        style={{ width: namesWidth }}
      >
        above: how many courses are open there
      </span>
      <div className="relative shrink-0" style={{ width: layout.width }}>
        <svg width={layout.width} height={barsHeight} aria-hidden="true" className="block">
          {layout.columns.map(({ key, x }, i) => {
            const { must = 0, should = 0 } = open[i] ?? {}
            return must + should === 0 ? null : (
              <g key={key}>
                <rect
                  x={x - wide / 2}
                  width={wide}
                  y={barsHeight - height(must + should)}
                  height={height(should)}
                  className="fill-straw-strand"
                />
                <rect
                  x={x - wide / 2}
                  width={wide}
                  y={barsHeight - height(must)}
                  height={height(must)}
                  className="fill-rust"
                />
              </g>
            )
          })}
        </svg>
        <div className="relative h-[18px]">
          {layout.groups.map(({ key, title, from, left, right }) => (
            <span
              key={key}
              role="columnheader"
              aria-colindex={from + 2}
              aria-label={title}
              title={title}
              className="absolute truncate border-b border-line-strong text-[12px] leading-[17px] font-semibold"
              style={{ left, width: Math.max(right - left, 12) }}
            >
              {right - left < roomForTitle ? shortTitle(key, title) : title}
            </span>
          ))}
        </div>
      </div>
    </div>
  )
}
