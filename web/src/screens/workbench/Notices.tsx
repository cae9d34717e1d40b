import { Button } from '../../controls/controls.tsx'
import { Clashes } from './Clashes.tsx'
import { useDraftStore } from './draftStore.ts'

const mostTold = 3

/** What stands in the way of the draft, and what others did to it meanwhile. */
export const Notices = () => {
  const { clashes, decide, problem, fromOthers, forget } = useDraftStore()
  return (
    <>
      <Clashes clashes={clashes} onDecide={decide} />
      {problem && (
        <div role="alert" className="mt-2 flex gap-3 border-l-4 border-rust bg-rust-soft px-3 py-1">
          <p>{problem}</p>
          <Button shape="word" onClick={forget}>
            forget it
          </Button>
        </div>
      )}
      {fromOthers.length > 0 && (
        <div role="status" className="mt-2 flex gap-3 border-l-4 border-slate bg-band px-3 py-1">
          <p>
            Somebody else changed the draft meanwhile:{' '}
            {fromOthers
              .slice(0, mostTold)
              .map((change) => `${change.of}, ${change.words}`)
              .join('; ')}
            {fromOthers.length > mostTold ? `, and ${fromOthers.length - mostTold} more` : ''}.
          </p>
          <Button shape="word" onClick={forget}>
            seen
          </Button>
        </div>
      )}
    </>
  )
}
