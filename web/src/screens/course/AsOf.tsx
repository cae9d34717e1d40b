import { instructionalWeeks, isPlainDate, type Facts } from '@wickerframe/core'
import { Choice } from '../../controls/controls.tsx'
import { DateField } from '../../controls/date/DateField.tsx'
import { nextMonday } from './mend/grouping.ts'

/** The day of which a check speaks: today, next Monday, opening day, or any date. */
export const AsOf = ({
  asOf,
  today,
  facts,
  onChange,
}: {
  asOf: string
  today: string
  facts: Facts
  onChange: (date: string | null) => void
}) => {
  const opening =
    instructionalWeeks({
      term: facts.term,
      nextTerm: facts.nextTerm,
      session: facts.session,
      count: facts.weeks,
    })[0]?.first ?? facts.term.firstDay
  const monday = nextMonday(today)
  const choices = [
    { text: 'today', date: today },
    { text: 'next Monday', date: monday },
    { text: 'opening day', date: opening },
  ].filter(({ date }, i, all) => all.findIndex((other) => other.date === date) === i)
  return (
    <span className="flex flex-wrap items-baseline gap-1.5 text-ink-2">
      as of
      {choices.map((choice) => (
        <Choice
          key={choice.text}
          pressed={asOf === choice.date}
          title={choice.date}
          onClick={() => onChange(choice.date === today ? null : choice.date)}
        >
          {choice.text}
        </Choice>
      ))}
      <DateField
        label="as of any date"
        isLabelSeen={false}
        value={asOf}
        near={today}
        required
        onPick={(date) => isPlainDate(date) && onChange(date === today ? null : date)}
      />
    </span>
  )
}
