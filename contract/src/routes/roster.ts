import { z } from 'zod'
import { csv } from '../route.ts'
import { AsShown, Flag, type Routes } from './asked.ts'

export const RosterReport = z.strictObject({
  dry: z.boolean(),

  /** Of all that the preview was made from. */
  digest: z.string(),

  /** How the file was read, where that wants telling. */
  note: z.string(),

  /** What the file says otherwise than somebody decided here: it stays as decided. */
  kept: z.array(
    z.strictObject({
      line: z.number(),
      course: z.string(),
      field: z.string(),
      here: z.string(),
      file: z.string(),
      by: z.string(),
    }),
  ),
  added: z.number(),
  changed: z.number(),
  unchanged: z.number(),
  rows: z.number(),
  errors: z.array(
    z.strictObject({ line: z.number(), column: z.string(), found: z.string(), reason: z.string() }),
  ),

  /** The first two thousand; the digest is of all. */
  changes: z.array(
    z.strictObject({
      line: z.number(),
      course: z.string(),
      field: z.string(),
      from: z.string(),
      to: z.string(),
    }),
  ),

  /** Rows whose course the platform does not have: they are left out. */
  absent: z.array(z.strictObject({ line: z.number(), course: z.string(), platformId: z.string() })),
})
export type RosterReport = z.output<typeof RosterReport>
/** How far long work is that is answered line by line. */
export const Progress = z.strictObject({
  /** In words, such as `comparing`. */
  doing: z.string(),
  done: z.number(),

  /** 0 where it is not known yet. */
  of: z.number(),
})
export type Progress = z.output<typeof Progress>

export const rosterRoutes = {
  importRoster: {
    method: 'post',
    path: '/api/roster',
    summary: 'Import a roster file; dry: only say what it would change',
    may: 'keep courses',
    query: AsShown.extend({ dry: Flag }),
    body: csv,
    answer: RosterReport,
  },
} as const satisfies Routes
