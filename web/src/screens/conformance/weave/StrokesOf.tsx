import type { Strokes } from './strokes.ts'

/** How each is drawn on a course’s line: what is met lightly, what is open heavily. */
const looks: Readonly<Record<keyof Strokes, { className: string; strokeWidth: number }>> = {
  met: { className: 'stroke-slate/75', strokeWidth: 1 },
  notDue: { className: 'stroke-slate', strokeWidth: 1 },
  waived: { className: 'stroke-slate', strokeWidth: 1 },
  untold: { className: 'stroke-ink-2', strokeWidth: 1.3 },
  should: { className: 'stroke-straw-strand', strokeWidth: 4.5 },
  must: { className: 'stroke-rust', strokeWidth: 2 },
}
/** A band’s knots are filled. */
const knots: Partial<typeof looks> = {
  should: { className: 'fill-straw-strand', strokeWidth: 0 },
  must: { className: 'fill-rust', strokeWidth: 0 },
}
const kinds = Object.keys(looks) as (keyof Strokes)[]

/** The strokes of one line, in their colours, what is open on top. */
export const StrokesOf = ({ strokes, isBand }: { strokes: Strokes; isBand: boolean }) =>
  kinds.map((kind) =>
    strokes[kind] === '' ? null : (
      <path key={kind} d={strokes[kind]} {...((isBand && knots[kind]) || looks[kind])} />
    ),
  )
