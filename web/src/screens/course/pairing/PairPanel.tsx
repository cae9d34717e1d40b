import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { nameLikeness, type CheckResult, type FindingPlace } from '@wickerframe/core'
import type { CourseCare, JoinPut, Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Pick, Problem, Sentence } from '../../../controls/controls.tsx'
import {
  matchWords,
  type LeftRow,
  type PairingRows,
  type RightRow,
  type Strand,
} from './pairingRows.ts'

export interface ChosenPair {
  left: LeftRow | null
  right: RightRow | null
  strand: Strand | null
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
const percent = (share: number): string => `${Math.round(share * 1000) / 10} %`

/** Why two were taken for one another, what departs there, and what can be done about it. */
export const PairPanel = ({
  chosen,
  rows,
  result,
  care,
  courseId,
  me,
  asOf,
  onMend,
  onWaive,
  onShowPage,
}: {
  chosen: ChosenPair | null
  rows: PairingRows
  result: CheckResult
  care: CourseCare
  courseId: number
  me: Me
  asOf: string
  onMend: (places: FindingPlace[]) => void
  onWaive: (place: FindingPlace) => void
  onShowPage: (itemId: string) => void
}) => {
  const client = useQueryClient()
  const [other, setOther] = useState('')
  const say = useMutation({
    mutationFn: (put: JoinPut) =>
      call('joinPair', { at: { course: courseId }, query: { asOf }, body: put }),
    onSuccess: () => {
      setOther('')
      return client.invalidateQueries({ queryKey: ['course', String(courseId)] })
    },
  })
  const designs = may(me, 'join pairs')
  if (!chosen || (!chosen.left && !chosen.right))
    return (
      <aside className="border border-line bg-sheet p-3 text-ink-2" aria-label="About the pair">
        <p>
          Point at a part, or step through them with the arrow keys: here it says what it was taken
          for, and why.
        </p>
        {care.joins.length > 0 && (
          <>
            <h3 className="mt-3 text-ink">Said by hand</h3>
            <ul>
              {care.joins.map((join) => (
                <li key={join.expected + join.found} className="border-t border-line py-1">
                  {join.what === 'join' ? 'joined' : 'kept apart'}:{' '}
                  {rows.left.find((row) => row.id === join.expected)?.name ?? join.expected} and{' '}
                  {rows.right.find((row) => row.id === join.found)?.name ?? join.found}
                  {result.lapsed.some(
                    (lapsed) => lapsed.expected === join.expected && lapsed.found === join.found,
                  ) && <strong> — an end is gone, so it has lapsed</strong>}{' '}
                  {designs && (
                    <Button
                      shape="word"
                      className="py-0!"
                      onClick={() =>
                        say.mutate({ what: 'forget', expected: join.expected, found: join.found })
                      }
                    >
                      forget
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </>
        )}
      </aside>
    )
  const { left, right, strand } = chosen
  const about = left?.id ?? null
  const places = result.findings.flatMap((finding) =>
    finding.places
      .filter((place) =>
        about !== null ? place.place.instance === about : place.place.foundId === right?.id,
      )
      .map((place) => ({ finding, place })),
  )
  const byLikeness = (name: string) => (a: { name: string }, b: { name: string }) =>
    nameLikeness(name, b.name) - nameLikeness(name, a.name)
  const partners =
    left && !strand
      ? rows.right
          .filter((row) => row.extra && row.isModule === left.isModule)
          .sort(byLikeness(left.name))
          .map((row) => ({ value: row.id, text: row.name }))
      : right && !strand
        ? rows.left
            .filter((row) => row.loose !== null && row.isModule === right.isModule)
            .sort(byLikeness(right.name))
            .map((row) => ({ value: row.id, text: row.name }))
        : []
  const chosenPartner =
    other !== '' && partners.some((partner) => partner.value === other)
      ? other
      : (partners[0]?.value ?? '')
  const merged =
    about === null ? undefined : result.merged.find((one) => one.expected.includes(about))
  const split = about === null ? undefined : result.split.find((one) => one.expected === about)
  return (
    <aside
      className="border border-line bg-sheet p-3"
      aria-label="About the pair"
      aria-live="polite"
    >
      {left && (
        <p>
          <span className="text-ink-2">Expected:</span> {left.name}
        </p>
      )}
      <p>
        <span className="text-ink-2">Found:</span> {right ? right.name : 'nothing'}
      </p>
      {strand && (
        <>
          <p className="mt-2">
            {strand.look === 'doubtful' ? <strong>Doubtful: </strong> : null}
            {capital(matchWords[strand.by])}
            {strand.by === 'evidence' && `, ${percent(strand.confidence)} sure`}
            {strand.moved && '; it stands in another module'}.
          </p>
          {strand.by === 'evidence' && strand.reasons.length > 0 && (
            <ul className="list-disc pl-5 text-ink-2">
              {strand.reasons.map((reason) => (
                <li key={reason}>{reason}</li>
              ))}
            </ul>
          )}
        </>
      )}
      {merged && (
        <p className="mt-2">
          Stands together with others in “{rows.right.find((row) => row.id === merged.found)?.name}
          ”.
        </p>
      )}
      {split && (
        <p className="mt-2">
          Was taken apart: the rest stands in{' '}
          {split.found
            .slice(1)
            .map((id) => `“${rows.right.find((row) => row.id === id)?.name ?? id}”`)
            .join(', ')}
          .
        </p>
      )}
      {!strand && right && <p className="mt-2 text-ink-2">Nothing in the template expects it.</p>}
      {!strand && left && (
        <p className="mt-2 text-ink-2">
          {left.loose === 'open' ? 'It is missing.' : 'It is not there, and need not be.'}
        </p>
      )}
      {designs && strand && (
        <p className="mt-2">
          <Button
            disabled={say.isPending}
            onClick={() =>
              say.mutate({ what: 'unjoin', expected: strand.left, found: strand.right })
            }
          >
            Not the same: unjoin
          </Button>
        </p>
      )}
      {designs && partners.length > 0 && (
        <p className="mt-2 flex flex-wrap items-end gap-2">
          <Pick
            label="It is really"
            className="min-w-0 grow"
            options={partners}
            value={chosenPartner}
            onChange={(event) => setOther(event.target.value)}
          />
          <Button
            disabled={say.isPending}
            onClick={() =>
              say.mutate({
                what: 'join',
                expected: left?.id ?? chosenPartner,
                found: right && !left ? right.id : chosenPartner,
              })
            }
          >
            Join
          </Button>
        </p>
      )}
      <Problem error={say.error} />
      {places.length > 0 && (
        <ul className="mt-3">
          {places.map(({ finding, place }) => (
            <li key={place.fingerprint} className="border-t border-line py-2">
              <p
                className={`text-[12.5px] font-semibold ${finding.strength === 'must' ? 'text-rust' : 'text-straw'}`}
              >
                {place.waived ? 'Waived' : `Open ${finding.strength}`}
              </p>
              <p>
                <Sentence text={place.message} strength={finding.strength} />
              </p>
              {may(me, 'look after course') && !place.waived && (
                <p className="flex gap-4">
                  {place.mend && (
                    <Button shape="word" className="py-0.5!" onClick={() => onMend([place])}>
                      Show the mend
                    </Button>
                  )}
                  <Button shape="word" className="py-0.5!" onClick={() => onWaive(place)}>
                    {may(me, 'decide waivers') ? 'Waive' : 'Ask for a waiver'}
                  </Button>
                </p>
              )}
            </li>
          ))}
        </ul>
      )}
      {right && !right.isModule && (
        <p className="mt-2">
          <Button shape="word" className="py-0.5!" onClick={() => onShowPage(right.id)}>
            Show page
          </Button>
        </p>
      )}
    </aside>
  )
}
