import { useState } from 'react'
import { isPlainDate, type HouseText } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { Button, Problem } from '../../controls/controls.tsx'
import { DateField } from '../../controls/date/DateField.tsx'
import { RichText } from '../workbench/page/RichText.tsx'
import { usePut } from './usePut.ts'

/** Writes the next revision of a house text, and says from when it is in force. */
export const HouseTextEditor = ({
  entry,
  today,
  onSaved,
}: {
  entry: LibraryEntry
  today: string
  onSaved: () => void
}) => {
  const text = entry.document as HouseText
  const last = text.revisions.at(-1)
  const [html, setHtml] = useState(last?.html ?? '')
  const [inForceFrom, setInForceFrom] = useState(today)
  const put = usePut(onSaved)
  const problem =
    last && isPlainDate(inForceFrom) && inForceFrom < last.inForceFrom
      ? `not before ${last.inForceFrom}, when revision ${last.number} came into force`
      : null
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <p className="font-semibold">Correct it: revision {(last?.number ?? 0) + 1}</p>
      <RichText
        label={`Words of ${text.title}`}
        html={html}
        sources={{ parts: [], assets: [] }}
        onDone={setHtml}
      />
      <DateField
        label="In force from"
        className="w-44"
        value={inForceFrom}
        near={today}
        required
        onPick={setInForceFrom}
      />
      {problem && <p className="text-rust">{problem}</p>}
      <p className="text-ink-2">
        Courses are checked against the new words from that day on. Those that copied the old words
        show as out of date until they are brought up to it.
      </p>
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={
          put.isPending || problem !== null || !isPlainDate(inForceFrom) || html === last?.html
        }
        onClick={() =>
          put.mutate({
            kind: 'house-text',
            was: entry.revision,
            document: {
              ...text,
              revisions: [
                ...text.revisions,
                { number: (last?.number ?? 0) + 1, inForceFrom, html },
              ],
            },
          })
        }
      >
        Put revision {(last?.number ?? 0) + 1} in force
      </Button>
    </div>
  )
}
