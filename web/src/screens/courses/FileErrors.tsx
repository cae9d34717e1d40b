import { plural } from '../../controls/controls.tsx'

const mostShown = 50

/** Places of a file or table that have to be mended before anything of it is taken. */
export const FileErrors = ({
  errors,
}: {
  errors: readonly { line: number; column: string; found: string; reason: string }[]
}) => (
  <>
    <p className="font-semibold">Nothing was taken: {plural(errors.length, 'place')} to mend.</p>
    <table className="mt-2 w-full text-left">
      <thead>
        <tr className="border-b border-line-strong">
          <th scope="col" className="pr-3">
            Line
          </th>
          <th scope="col" className="pr-3">
            Column
          </th>
          <th scope="col" className="pr-3">
            Found
          </th>
          <th scope="col">Wanted</th>
        </tr>
      </thead>
      <tbody>
        {errors.slice(0, mostShown).map((error, i) => (
          <tr key={i} className="border-b border-line align-top">
            <td className="pr-3">{error.line}</td>
            <td className="pr-3">{error.column || 'whole line'}</td>
            <td className="pr-3">
              <mark className="bg-rust-soft text-ink">{error.found || 'nothing'}</mark>
            </td>
            <td>{error.reason}</td>
          </tr>
        ))}
      </tbody>
    </table>
    {errors.length > mostShown && <p className="mt-1">and {errors.length - mostShown} more</p>}
  </>
)
