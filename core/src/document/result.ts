import { z } from 'zod'
/** Why a value inside a document could not be used, and where. */
export const Problem = z.strictObject({
  /** Stable code of the kind of mistake, e.g. `unknown-field`. */
  code: z.string(),

  /** JSON Pointer (RFC 6901) from the root of the document. */
  path: z.string(),

  /** What stands there, shortened to 80 characters. */
  found: z.string(),

  /** What was wanted, and where known what to do. */
  expected: z.string(),
})
export type Problem = z.output<typeof Problem>

/** An expected failure is a value; throwing is for misuse. */
export type Result<T, P = Problem[]> = { ok: true; value: T } | { ok: false; problems: P }

export const success = <T>(value: T): { ok: true; value: T } => ({ ok: true, value })
export const failure = <P>(problems: P): { ok: false; problems: P } => ({ ok: false, problems })
