import type { Strand } from '@wickerframe/core'
import { strandLetters } from '@wickerframe/core'
import { courseHeight, courseStrokes, warpStrokes } from './strokes.ts'
import { strandWords } from './words.ts'
import { StrokesOf } from './StrokesOf.tsx'

const shown: readonly Strand[] = [
  'open-must',
  'open-should',
  'cannot-tell',
  'waived',
  'met',
  'not-due-yet',
]
const one = {
  columns: [{ key: '', title: '', group: '', of: [0], x: 12 }],
  groups: [],
  width: 24,
  step: 12,
}

/** How each strand is drawn. */
export const Legend = () => (
  <ul className="flex flex-wrap items-center gap-x-4 text-ink-2">
    {shown.map((strand) => (
      <li key={strand} className="flex items-center gap-1">
        <svg width={24} height={courseHeight} aria-hidden="true" fill="none">
          <path d={warpStrokes(one, courseHeight)} className="stroke-warp" strokeWidth="1.4" />
          <StrokesOf strokes={courseStrokes(one, strandLetters[strand])} isBand={false} />
        </svg>
        {strandWords[strand]}
      </li>
    ))}
  </ul>
)
