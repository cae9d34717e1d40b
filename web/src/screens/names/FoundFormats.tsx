import type { InferredFormat } from '@wickerframe/core'
import { Button, plural } from '../../controls/controls.tsx'
import { FormatText } from '../workbench/FormatField.tsx'

const shown = 3

/** Formats that the names of the list follow by themselves, to take over with one press. */
export const FoundFormats = ({
  formats,
  names,
  format,
  onTake,
}: {
  formats: readonly InferredFormat[] | null
  names: number
  format: string
  onTake: (format: string) => void
}) => {
  if (names === 0) return null
  if (formats === null)
    return (
      <p className="mt-2 text-ink-3" role="status">
        Looking for formats in the list …
      </p>
    )
  if (formats.length === 0)
    return <p className="mt-2 text-ink-2">No format recurs in these names.</p>
  return (
    <div className="mt-2">
      <h3 className="text-[14px]">Formats found in the list</h3>
      <ul>
        {formats.slice(0, shown).map((found) => (
          <li
            key={found.format}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-line py-0.5"
          >
            <FormatText format={found.format} />
            <span className="text-ink-2">
              {found.count === names ? 'all of them' : `${found.count} of ${plural(names, 'name')}`}
            </span>
            {found.format === format ? (
              <span className="text-ink-3">stands above</span>
            ) : (
              <Button shape="word" onClick={() => onTake(found.format)}>
                take this one
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}
