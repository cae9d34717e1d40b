import type { CheckResult, Finding, FindingPlace } from '@wickerframe/core'
import { plural, Sentence } from '../../controls/controls.tsx'

const whoseMove = (finding: Finding): string => (finding.mender === 'instructor' ? (finding.owner ?? 'the instructor') : finding.mender === 'designer' ? 'us' : 'the administrator')

const Place = ({ place, strength, onShowPage }: { place: FindingPlace; strength: Finding['strength']; onShowPage: (itemId: string) => void }) => (
  <li className="border-t border-line py-1.5">
    <p className="text-ink-2">{place.place.path.join(' › ')}</p>
    <p>
      Seen: {place.evidence.map((seen, i) => <mark key={i} className={`mr-1 px-0.5 text-ink ${strength === 'must' ? 'bg-rust-soft' : 'bg-straw-soft'}`}>{seen.text}</mark>)}
    </p>
    <p className="text-ink-2">
      Expected: {place.expected}
      {place.place.foundId && place.place.part !== null && (
        <>
          {' · '}
          <button type="button" className="text-tide underline" onClick={() => onShowPage(place.place.foundId ?? '')}>show page</button>
        </>
      )}
    </p>
  </li>
)

/** Findings as sentences with their evidence marked; each opens into the places where it was seen. */
export const Findings = ({ findings, onShowPage }: { findings: readonly Finding[]; onShowPage: (itemId: string) => void }) =>
  findings.length === 0 ? (
    <p className="py-4 text-ink-2">Nothing to mend here.</p>
  ) : (
    <ul>
      {findings.map((finding) => (
        <li key={finding.rule + finding.fingerprint + finding.message} className="border-t border-line py-3">
          <p className={`text-[12.5px] font-semibold ${finding.strength === 'must' ? 'text-rust' : 'text-straw'}`}>
            Open {finding.strength} · {whoseMove(finding)}
          </p>
          <p><Sentence text={finding.message} strength={finding.strength} /></p>
          <details className="mt-1">
            <summary className="cursor-pointer text-tide underline">why, and {plural(finding.places.length, 'place')}</summary>
            <p className="py-1 text-ink-2">{finding.why}{finding.basis ? ` Rests on: ${finding.basis}.` : ''} About {finding.effortMinutes} min.{finding.places.every((place) => place.mend !== null) ? ' Wickerframe knows the mend.' : ''}</p>
            <ul>{finding.places.map((place) => <Place key={place.fingerprint} place={place} strength={finding.strength} onShowPage={onShowPage} />)}</ul>
          </details>
        </li>
      ))}
    </ul>
  )

/** What the check could not tell, with the reasons. */
export const Untold = ({ result }: { result: CheckResult }) => {
  const untold = result.outcomes.filter((outcome) => outcome.outcome === 'cannot-tell')
  if (untold.length === 0) return null
  return (
    <section className="mt-4 border border-line bg-sheet p-3">
      <h3>Could not be told</h3>
      <ul>{untold.map((outcome) => <li key={outcome.rule + outcome.fingerprint} className="border-t border-line py-2">{outcome.reason}</li>)}</ul>
    </section>
  )
}
