import { Button } from '../../../controls/controls.tsx'
import type { FindingActions } from './actions.ts'
import { FindingLine } from './FindingLine.tsx'
import type { FindingGroup } from './grouping.ts'
import type { Chosen } from './useChosen.ts'

/** How many stand under a heading, how many of them were left to fill in, and in how many places. */
const countWords = ({ findings }: FindingGroup): string => {
  const unfilled = findings.filter(({ rule }) => rule === 'fill-in-unfilled').length
  const places = findings.reduce((sum, { places: { length } }) => sum + length, 0)
  return [
    unfilled === findings.length ? `${unfilled} unfilled` : `${findings.length} open`,
    ...(unfilled > 0 && unfilled < findings.length ? [`${unfilled} unfilled`] : []),
    ...(places > findings.length ? [`in ${places} places`] : []),
  ].join(', ')
}

/** Findings under a heading, a line for each. */
export const GroupOfFindings = ({
  group,
  actions,
  chosen,
  home,
}: {
  group: FindingGroup
  actions: FindingActions
  /** null where nothing can be done with several at once. */
  chosen: Chosen | null
  /** The home page, where the heading is about it. */
  home: string | null
}) => {
  const { title, findings } = group
  const all = chosen !== null && findings.every(chosen.has) ? 'let go' : 'choose all'
  return (
    <section className="mt-2">
      <header className="flex items-baseline justify-between gap-4 border-b border-line-strong">
        <h2 className="text-[17px]">{title}</h2>
        <p className="flex gap-3 text-[13px] text-ink-2">
          {countWords(group)}
          {home !== null && (
            <Button shape="word" className="py-0!" onClick={() => actions.onShowPage(home)}>
              show the page
            </Button>
          )}
          {chosen && findings.length > 1 && (
            <Button
              shape="word"
              className="py-0!"
              aria-label={`${all}: ${title}`}
              onClick={() => chosen.toggle(findings)}
            >
              {all}
            </Button>
          )}
        </p>
      </header>
      <ul>
        {findings.map((finding) => (
          <FindingLine
            key={`${finding.rule} ${finding.places[0]?.fingerprint ?? ''}`}
            finding={finding}
            actions={actions}
            chosen={chosen && chosen.has(finding)}
            onChoose={() => chosen?.toggle([finding])}
          />
        ))}
      </ul>
    </section>
  )
}
