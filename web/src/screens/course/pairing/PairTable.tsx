import { matchWords, type PairingRows } from './pairingRows.ts'

/** The pairing in words: the same as the drawing, for who reads rather than looks. */
export const PairTable = ({ rows }: { rows: PairingRows }) => {
  const found = new Map(rows.right.map((row) => [row.id, row]))
  const strandOf = new Map(rows.strands.map((strand) => [strand.left, strand]))
  const standing = {
    met: 'in order',
    'open-must': 'open must',
    'open-should': 'open should',
    doubtful: 'doubtful',
    'not-due-yet': 'not due yet',
  } as const
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Pairing as a table">
      <table className="w-full">
        <caption className="sr-only">
          Every part of the template with what was found for it, then what nothing expects
        </caption>
        <thead>
          <tr className="text-left text-ink-2">
            <th scope="col" className="py-1 pr-3">
              Expected
            </th>
            <th scope="col" className="pr-3">
              Found
            </th>
            <th scope="col" className="pr-3">
              How it was told
            </th>
            <th scope="col" className="pr-3">
              Sure
            </th>
            <th scope="col">Standing</th>
          </tr>
        </thead>
        <tbody>
          {rows.left.map((row) => {
            const strand = strandOf.get(row.id)
            return (
              <tr key={row.id} className="border-t border-line align-top">
                <th
                  scope="row"
                  className={`py-1 pr-3 text-left ${row.isModule ? 'font-semibold' : 'pl-4 font-normal'}`}
                >
                  {row.name}
                </th>
                <td className="py-1 pr-3">
                  {strand ? (found.get(strand.right)?.name ?? '') : 'nothing'}
                </td>
                <td className="py-1 pr-3 text-ink-2">
                  {strand
                    ? `${matchWords[strand.by]}${strand.moved ? ', in another module' : ''}${strand.by === 'evidence' ? `: ${strand.reasons.join(', ')}` : ''}`
                    : ''}
                </td>
                <td className="py-1 pr-3 tabular-nums">
                  {strand ? `${Math.round(strand.confidence * 100)} %` : ''}
                </td>
                <td className="py-1">
                  {strand
                    ? standing[strand.look]
                    : row.loose === 'open'
                      ? 'missing'
                      : 'not there, and need not be'}
                </td>
              </tr>
            )
          })}
          {rows.right
            .filter((row) => row.extra)
            .map((row) => (
              <tr key={row.id} className="border-t border-line">
                <th scope="row" className="py-1 pr-3 text-left font-normal text-ink-2">
                  nothing expects it
                </th>
                <td className="pr-3">{row.name}</td>
                <td />
                <td />
                <td>the course’s own</td>
              </tr>
            ))}
        </tbody>
      </table>
    </div>
  )
}
