import { Field } from '../../controls/controls.tsx'
import { Tick } from '../../controls/typed.tsx'

/** From when until when a waiver holds, and whether it goes on in later terms. */
export const Lasting = ({
  from,
  setFrom,
  until,
  setUntil,
  carried,
  setCarried,
}: {
  from: string
  setFrom: (day: string) => void
  until: string
  setUntil: (day: string) => void
  carried: boolean
  setCarried: (carried: boolean) => void
}) => (
  <div className="flex flex-wrap items-end gap-3">
    <Field
      label="From (empty: today)"
      type="date"
      value={from}
      onChange={(event) => setFrom(event.target.value)}
    />
    <Field
      label="Until, the last day (empty: without end)"
      type="date"
      value={until}
      onChange={(event) => setUntil(event.target.value)}
    />
    <Tick label="It goes on in the next term" checked={carried} onChange={setCarried} />
  </div>
)
