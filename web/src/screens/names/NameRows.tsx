import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import { wordDifference, type NameVerdict } from '@wickerframe/core'
import type { Judged } from './protocol.ts'

export interface NameRow {
  index: number
  name: string
  /** Where it stands, for names of real courses. */
  where: string | null
  judged: Judged
}

/** A mended name with what is new in it underlined, and what goes struck out. */
const Mended = ({ before, after }: { before: string; after: string }) => (
  <span>
    {wordDifference(before, after).map((run, i) =>
      run.change === 'same' ? (
        <span key={i}>{run.text}</span>
      ) : run.change === 'new' ? (
        <ins key={i} className="bg-tide-soft font-semibold no-underline">
          {run.text}
        </ins>
      ) : (
        <del key={i} className="text-ink-3 decoration-line-strong">
          {run.text}
        </del>
      ),
    )}
  </span>
)

const certainty = (confidence: number): string =>
  confidence >= 0.9
    ? 'sure'
    : confidence >= 0.8
      ? 'fairly sure'
      : confidence >= 0.6
        ? 'unsure'
        : 'very unsure'

const verdictWords: Record<NameVerdict, string> = {
  follows: 'follows',
  'small-differences': 'small differences',
  mendable: 'mendable',
  unreadable: 'not readable',
}

const rowHeight = 52

/** The names of a list with what became of each; thousands scroll smoothly. */
export const NameRows = ({
  rows,
  picked,
  onPick,
}: {
  rows: readonly NameRow[]
  picked: ReadonlySet<number> | null
  onPick: (index: number) => void
}) => {
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 10,
  })
  return (
    <div
      ref={scroller}
      className="h-[27rem] overflow-y-auto border border-line bg-sheet"
      tabIndex={0}
      role="region"
      aria-label="Names and what becomes of them"
    >
      <ul style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]
          if (!row) return null
          const { judged } = row
          const changes = judged.mended !== null && judged.mended !== row.name
          return (
            <li
              key={row.index}
              style={{
                position: 'absolute',
                top: 0,
                left: 0,
                right: 0,
                height: rowHeight,
                transform: `translateY(${item.start}px)`,
              }}
              className="grid grid-cols-[minmax(0,1fr)_8.5rem] gap-3 border-b border-line px-3 py-1 leading-snug"
            >
              <div className="flex min-w-0 gap-2">
                {picked !== null && changes && (
                  <input
                    type="checkbox"
                    className="mt-0.5 size-[24px] shrink-0 accent-tide"
                    aria-label={`Give the name “${judged.mended}”`}
                    checked={picked.has(row.index)}
                    onChange={() => onPick(row.index)}
                  />
                )}
                <div className="min-w-0">
                  <p className="truncate" title={row.name}>
                    {changes && judged.mended !== null ? (
                      <Mended before={row.name} after={judged.mended} />
                    ) : (
                      row.name
                    )}
                  </p>
                  <p
                    className="truncate text-[12.5px] text-ink-3"
                    title={judged.reasons.join('; ')}
                  >
                    {row.where ? `${row.where} · ` : ''}
                    {judged.reasons.join('; ') ||
                      (judged.verdict === 'follows'
                        ? 'as the format wants it'
                        : 'the same in meaning')}
                  </p>
                </div>
              </div>
              <p className="text-right text-[12.5px] text-ink-2">
                {verdictWords[judged.verdict]}
                {judged.verdict === 'mendable' && (
                  <>
                    <br />
                    {certainty(judged.confidence)}
                  </>
                )}
              </p>
            </li>
          )
        })}
      </ul>
    </div>
  )
}
