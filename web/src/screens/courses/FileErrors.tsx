import { plural } from '../../controls/controls.tsx'

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
        {errors.slice(0, 50).map((one, i) => (
          <tr key={i} className="border-b border-line align-top">
            <td className="pr-3">{one.line}</td>
            <td className="pr-3">{one.column || 'whole line'}</td>
            <td className="pr-3">
              <mark className="bg-rust-soft text-ink">{one.found || 'nothing'}</mark>
            </td>
            <td>{one.reason}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </>
)
