import { DateField } from '../../controls/date/DateField.tsx'
import { Tick } from '../../controls/typed.tsx'

/** From when until when a waiver holds, and whether it goes on in later terms. */
export const Lasting = ({
  today,
  from,
  setFrom,
  until,
  setUntil,
  carried,
  setCarried,
}: {
  today: string
  from: string
  setFrom: (day: string) => void
  until: string
  setUntil: (day: string) => void
  carried: boolean
  setCarried: (carried: boolean) => void
}) => (
  <div className="flex flex-wrap items-start gap-3">
    <DateField label="From (empty: today)" value={from} near={today} onPick={setFrom} />
    <DateField
      label="Until, the last day (empty: without end)"
      value={until}
      near={today}
      onPick={setUntil}
    />
    <Tick label="It goes on in the next term" checked={carried} onChange={setCarried} />
  </div>
)
