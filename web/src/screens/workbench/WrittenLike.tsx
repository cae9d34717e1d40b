import { offsetExamples } from '@wickerframe/core'

/** What somebody types who wants to know how dates are written. */
export const asksHow = (typed: string): boolean => typed.trim() === '?'

/** How dates may be written, each with what it comes to. */
export const WrittenLike = ({ id }: { id?: string }) => (
  <dl
    id={id}
    aria-label="How dates are written"
    className="grid grid-cols-2 gap-x-3 gap-y-0.5 text-[12.5px]"
  >
    {offsetExamples.map(({ write, means }) => (
      <div key={write} className="col-span-2 grid grid-cols-subgrid">
        <dt className="font-mono text-ink">{write}</dt>
        <dd className="text-ink-2">{means}</dd>
      </div>
    ))}
  </dl>
)
