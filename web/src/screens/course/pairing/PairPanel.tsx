import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { nameLikeness, type CheckResult, type FindingPlace } from '@wickerframe/core'
import type { CourseCare, JoinPut, MeInCourse } from '@wickerframe/contract'
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

interface Panel {
  rows: PairingRows
  result: CheckResult
  care: CourseCare
  courseId: number
  me: MeInCourse
  asOf: string
  onMend: (places: FindingPlace[]) => void
  onWaive: (place: FindingPlace) => void
  onShowPage: (itemId: string) => void
}

const useSayingPairs = (courseId: number, asOf: string) => {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (put: JoinPut) =>
      call('joinPair', { at: { course: courseId }, query: { asOf }, body: put }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['course', String(courseId)] }),
  })
}
type Saying = ReturnType<typeof useSayingPairs>

/** Why two were taken for one another, what departs there, and what can be done about it. */
export const PairPanel = ({ chosen, ...panel }: Panel & { chosen: ChosenPair | null }) => {
  const saying = useSayingPairs(panel.courseId, panel.asOf)
  return chosen?.left || chosen?.right ? (
    <AboutPair {...panel} saying={saying} chosen={chosen} />
  ) : (
    <NothingChosen {...panel} saying={saying} />
  )
}

const NothingChosen = ({ care, me, result, rows, saying }: Panel & { saying: Saying }) => (
  <aside className="border border-line bg-sheet p-3 text-ink-2" aria-label="About the pair">
    <p>
      Point at a part, or step through them with the arrow keys: here it says what it was taken for,
      and why.
    </p>
    {care.joins.length > 0 && (
      <>
        <h3 className="mt-3 text-ink">Said by hand</h3>
        <ul>
          {care.joins.map(({ expected, found, what }) => (
            <li key={expected + found} className="border-t border-line py-1">
              {what === 'join' ? 'joined' : 'kept apart'}:{' '}
              {rows.left.find((row) => row.id === expected)?.name ?? expected} and{' '}
              {rows.right.find((row) => row.id === found)?.name ?? found}
              {result.lapsed.some(
                (lapsed) => lapsed.expected === expected && lapsed.found === found,
              ) && <strong> — an end is gone, so it has lapsed</strong>}{' '}
              {may(me, 'join pairs') && (
                <Button
                  shape="word"
                  className="py-0!"
                  onClick={() => saying.mutate({ what: 'forget', expected, found })}
                >
                  forget
                </Button>
              )}
            </li>
          ))}
        </ul>
      </>
    )}
    <Problem error={saying.error} />
  </aside>
)

const AboutPair = ({
  chosen,
  saying,
  ...panel
}: Panel & { chosen: ChosenPair; saying: Saying }) => {
  const { left, right, strand } = chosen
  const { me, onShowPage } = panel
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
      {strand ? <WhyPaired strand={strand} /> : <WhyAlone left={left} right={right} />}
      {left && <OthersBeside instance={left.id} {...panel} />}
      {may(me, 'join pairs') && strand && (
        <p className="mt-2">
          <Button
            disabled={saying.isPending}
            onClick={() =>
              saying.mutate({ what: 'unjoin', expected: strand.left, found: strand.right })
            }
          >
            Not the same: unjoin
          </Button>
        </p>
      )}
      {may(me, 'join pairs') && !strand && (
        <JoinChoice left={left} right={right} rows={panel.rows} saying={saying} />
      )}
      <Problem error={saying.error} />
      <WhatDeparts chosen={chosen} {...panel} />
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

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
const percent = (share: number): string => `${Math.round(share * 1000) / 10} %`

const WhyPaired = ({ strand }: { strand: Strand }) => (
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
)

const WhyAlone = ({ left, right }: Pick<ChosenPair, 'left' | 'right'>) => (
  <p className="mt-2 text-ink-2">
    {right
      ? 'Nothing in the template expects it.'
      : left?.loose === 'open'
        ? 'It is missing.'
        : 'It is not there, and need not be.'}
  </p>
)

/** What a part was put together with, or taken apart into. */
const OthersBeside = ({
  instance,
  result,
  rows,
}: Pick<Panel, 'result' | 'rows'> & { instance: string }) => {
  const merged = result.merged.find(({ expected }) => expected.includes(instance))
  const split = result.split.find(({ expected }) => expected === instance)
  const nameOf = (id: string): string => rows.right.find((row) => row.id === id)?.name ?? id
  return (
    <>
      {merged && <p className="mt-2">Stands together with others in “{nameOf(merged.found)}”.</p>}
      {split && (
        <p className="mt-2">
          Was taken apart: the rest stands in{' '}
          {split.found
            .slice(1)
            .map((id) => `“${nameOf(id)}”`)
            .join(', ')}
          .
        </p>
      )}
    </>
  )
}

/** What could be the other end of a part that stands alone, the likest name first. */
const partnersFor = ({ left, right }: Pick<ChosenPair, 'left' | 'right'>, rows: PairingRows) => {
  const alone = left ?? right
  if (!alone) return []
  const candidates: readonly (LeftRow | RightRow)[] = left
    ? rows.right.filter((row) => row.extra)
    : rows.left.filter((row) => row.loose !== null)
  return candidates
    .filter(({ isModule }) => isModule === alone.isModule)
    .sort((a, b) => nameLikeness(alone.name, b.name) - nameLikeness(alone.name, a.name))
    .map(({ id, name }) => ({ value: id, text: name }))
}

const JoinChoice = ({
  left,
  right,
  rows,
  saying,
}: Pick<ChosenPair, 'left' | 'right'> & { rows: PairingRows; saying: Saying }) => {
  const [picked, setPicked] = useState('')
  const partners = partnersFor({ left, right }, rows)
  const [first] = partners
  if (!first) return null
  const partner = partners.some(({ value }) => value === picked) ? picked : first.value
  return (
    <p className="mt-2 flex flex-wrap items-end gap-2">
      <Pick
        label="It is really"
        className="min-w-0 grow"
        options={partners}
        value={partner}
        onChange={(event) => setPicked(event.target.value)}
      />
      <Button
        disabled={saying.isPending}
        onClick={() =>
          saying.mutate({
            what: 'join',
            expected: left?.id ?? partner,
            found: right && !left ? right.id : partner,
          })
        }
      >
        Join
      </Button>
    </p>
  )
}

const WhatDeparts = ({
  chosen: { left, right },
  me,
  onMend,
  onWaive,
  result,
}: Panel & { chosen: ChosenPair }) => {
  const places = result.findings.flatMap((finding) =>
    finding.places
      .filter(({ place }) => (left ? place.instance === left.id : place.foundId === right?.id))
      .map((place) => ({ finding, place })),
  )
  if (places.length === 0) return null
  return (
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
              {may(me, 'decide for course') && (
                <Button shape="word" className="py-0.5!" onClick={() => onWaive(place)}>
                  {may(me, 'decide waivers') ? 'Waive' : 'Ask for a waiver'}
                </Button>
              )}
            </p>
          )}
        </li>
      ))}
    </ul>
  )
}
