import { memo } from 'react'
import type { Layout } from './layout.ts'
import { warpStrokes } from './strokes.ts'

/** As high as the largest screens. */
const warpHeight = 2200

/** The standing strands, drawn once for all lines, which pass over them. */
export const Warp = memo(({ layout, left }: { layout: Layout; left: number }) => (
  <div className="sticky top-0 h-0" aria-hidden="true">
    <svg width={layout.width} height={warpHeight} className="absolute" style={{ left }}>
      <path d={warpStrokes(layout, warpHeight)} className="stroke-warp" strokeWidth="1.4" />
    </svg>
  </div>
))
Warp.displayName = 'Warp'
