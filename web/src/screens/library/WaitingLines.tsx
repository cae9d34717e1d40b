import type { ReactNode } from 'react'
import { Button, Field } from '../../controls/controls.tsx'

/** What waits to be put into the library, and what it is asked. */
export interface WaitingLine {
  key: string
  label: string
  value: string
  /** How it looks, where it looks like something. */
  picture?: ReactNode
  /** What is worth knowing before it is put in. */
  remark?: string | null
}

/** Several things that wait to be put in: each asked one thing, the licence asked once for all. */
export const WaitingLines = ({
  lines,
  licence,
  licenceOfOne,
  isReady,
  onType,
  onLeaveOut,
  onLicence,
}: {
  lines: readonly WaitingLine[]
  licence: string
  /** What the licence is called where only one waits. */
  licenceOfOne: string
  /** Whether they may be put in now. */
  isReady: boolean
  onType: (index: number, value: string) => void
  onLeaveOut: (index: number) => void
  onLicence: (licence: string) => void
}) => (
  <>
    {lines.map(({ key, label, value, picture, remark }, i) => (
      <div key={key} className="flex flex-wrap items-end gap-3">
        {picture}
        <Field
          label={label}
          className="grow"
          value={value}
          onChange={(event) => onType(i, event.target.value)}
        />
        <Button shape="word" onClick={() => onLeaveOut(i)}>
          leave out
        </Button>
        {remark && <p className="w-full border-l-4 border-rust bg-rust-soft px-3 py-1">{remark}</p>}
      </div>
    ))}
    {lines.length > 0 && (
      <div className="flex flex-wrap items-end gap-3">
        <Field
          label={lines.length === 1 ? licenceOfOne : 'Licence of all of them'}
          value={licence}
          onChange={(event) => onLicence(event.target.value)}
        />
        <Button type="submit" disabled={!isReady}>
          {lines.length === 1 ? 'Put it in' : `Put ${lines.length} in`}
        </Button>
      </div>
    )}
  </>
)
