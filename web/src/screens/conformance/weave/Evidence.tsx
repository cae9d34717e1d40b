import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { ConformanceRow, Me } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { strandAt } from '@wickerframe/core'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem, Sentence } from '../../../controls/controls.tsx'
import { openAt, type Band } from './bands.ts'
import { foldedKey, shownLetters, type Layout, type ShownColumn } from './layout.ts'
import { columnWords, openWords, strandWords } from './words.ts'

/** What stands where somebody looks: at a crossing of a course, or of a band. */
export const Evidence = ({
  band,
  row,
  column,
  layout,
  me,
  asOf,
}: {
  band: Band | null
  row: ConformanceRow | null
  column: number | null
  layout: Layout
  me: Me
  asOf: string
}) => {
  if (!band)
    return (
      <p className="text-ink-2">
        Point at the weave, or walk it with the arrow keys, to read what stands there. Press a band
        to open it, and a crossing for its evidence.
      </p>
    )
  const shown = column === null ? undefined : layout.columns[column]
  if (!row)
    return (
      <>
        <p className="font-semibold">{band.title}</p>
        <p className="text-ink-2">
          {band.ready} of {plural(band.rows.length, 'course')} ready
        </p>
        {shown && column !== null && (
          <p className="mt-1">
            {columnWords(layout, column)}: {bandSays(band, shown)}.
          </p>
        )}
      </>
    )
  const letter = shown ? shownLetters(row.strands, [shown]) : '.'
  const strand = strandAt(letter, 0)
  return (
    <>
      <p className="font-semibold">
        {row.code} {row.title}
      </p>
      <p className="text-ink-2">
        {row.classSections.length > 0 && `class section ${row.classSections.join(', ')} · `}
        {row.owner || 'nobody teaches it'}
      </p>
      {shown && column !== null && (
        <>
          <p className="mt-1">
            {columnWords(layout, column)}: {strandWords[strand]}.
          </p>
          {strand.startsWith('open') && (
            <>
              <Findings row={row} shown={shown} me={me} asOf={asOf} />
              <p className="mt-2 text-[12.5px] text-ink-3">
                In {band.title}: {bandSays(band, shown)}.
              </p>
            </>
          )}
        </>
      )}
    </>
  )
}

const bandSays = ({ rows }: Band, shown: ShownColumn): string => {
  const [open = { must: 0, should: 0 }] = openAt(
    rows.map(({ strands }) => shownLetters(strands, [shown])),
    1,
  )
  return open.must + open.should === 0 ? 'open in no course' : openWords(open, rows.length)
}

const Findings = ({
  row,
  shown,
  me,
  asOf,
}: {
  row: ConformanceRow
  shown: ShownColumn
  me: Me
  asOf: string
}) => {
  const client = useQueryClient()
  const column = shown.key
  const isFolded = column === foldedKey
  const crossing = useQuery({
    queryKey: ['course', String(row.id), 'crossing', column, asOf],
    queryFn: () => call('crossing', { at: { course: row.id }, query: { asOf, column } }),
    enabled: !isFolded,
  })
  const raise = useMutation({
    mutationFn: (fingerprints: string[]) =>
      call('followUp', {
        at: { course: row.id },
        query: { asOf },
        body: { does: 'raise', fingerprints, note: '' },
      }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['course', String(row.id)] }),
  })
  const findings = crossing.data?.findings ?? []
  const at = isFolded ? '' : `&at=${encodeURIComponent(column)}`
  return (
    <>
      {crossing.isError && <Problem error={crossing.error} />}
      <ul aria-live="polite">
        {findings.slice(0, 6).map((finding) => (
          <li key={finding.fingerprints[0]} className="mt-2">
            <Sentence text={finding.message} strength={finding.strength} />
          </li>
        ))}
        {findings.length > 6 && <li className="mt-1 text-ink-2">and {findings.length - 6} more</li>}
      </ul>
      <p className="mt-2 flex flex-wrap items-center gap-3">
        {may(me, 'raise findings') && findings.length > 0 && row.owner !== '' && (
          <Button
            disabled={raise.isPending || raise.isSuccess}
            onClick={() => raise.mutate(findings.flatMap(({ fingerprints }) => fingerprints))}
          >
            {raise.isSuccess ? `Raised with ${row.owner}` : 'Raise it'}
          </Button>
        )}
        <Link className="text-tide underline" to={`/courses/${row.id}?show=mend${at}`}>
          Show the evidence
        </Link>
      </p>
      <Problem error={raise.error} />
    </>
  )
}
