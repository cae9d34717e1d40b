import { Button } from '../../controls/controls.tsx'
import type { OpenClash } from './draftStore.ts'

const shown = (value: unknown): string =>
  value === undefined || value === null
    ? 'nothing'
    : typeof value === 'string'
      ? `“${value}”`
      : JSON.stringify(value)

/** Two people set the same field: both values, and whose is kept is decided here. */
export const Clashes = ({
  clashes,
  onDecide,
}: {
  clashes: readonly OpenClash[]
  onDecide: (clash: OpenClash, take: 'mine' | 'theirs') => void
}) => (
  <>
    {clashes.map((clash, i) => (
      <div key={i} role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
        <p>
          Somebody else set {clash.clash.where} meanwhile. There it says{' '}
          {shown(clash.clash.present)}; you wrote {shown(clash.clash.wanted)}.
        </p>
        <p className="flex gap-4">
          <Button shape="word" onClick={() => onDecide(clash, 'theirs')}>
            keep theirs
          </Button>
          <Button shape="word" onClick={() => onDecide(clash, 'mine')}>
            put mine
          </Button>
        </p>
      </div>
    ))}
  </>
)
