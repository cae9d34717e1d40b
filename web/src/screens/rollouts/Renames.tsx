import type { ProposedRename } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'

/** The names a planned run gives in one course, from and to. */
export const Renames = ({
  renames,
  open,
}: {
  renames: readonly ProposedRename[]
  open: boolean
}) => (
  <details open={open && renames.length <= 20}>
    <summary className="cursor-pointer">{plural(renames.length, 'new name')}</summary>
    <ul className="mb-1">
      {renames.map((rename) => (
        <li key={rename.id}>
          <span className="text-ink-3 line-through decoration-line-strong">{rename.was}</span>{' '}
          <span aria-label="becomes">→</span> <span className="text-ink">{rename.name}</span>
        </li>
      ))}
    </ul>
  </details>
)
