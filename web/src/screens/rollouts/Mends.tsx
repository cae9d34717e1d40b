import type { RunTask } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'

/** What a planned run mends in one course, finding by finding, with what changes. */
export const Mends = ({ mends, open }: { mends: RunTask['mends']; open: boolean }) => (
  <details open={open && mends.length <= 12}>
    <summary className="cursor-pointer">{plural(mends.length, 'mend')}</summary>
    <ul className="mb-1">
      {mends.map((mend, i) => (
        <li key={i} className="py-0.5">
          {mend.message}
          <ul className="list-disc pl-5 text-ink">
            {mend.changes.map((change, j) => (
              <li key={j}>{change}</li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  </details>
)
