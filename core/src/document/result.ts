/** Why a value inside a document could not be used, and where. */
export interface Problem {
  /** Stable code of the kind of mistake, e.g. `unknown-field`. */
  code: string
  /** JSON Pointer (RFC 6901) from the root of the document. */
  path: string
  /** What stands there, shortened to 80 characters. */
  found: string
  /** What was wanted, and where known what to do. */
  expected: string
}

/** An expected failure is a value; throwing is for misuse. */
export type Result<T, P = Problem[]> = { ok: true; value: T } | { ok: false; problems: P }

export const success = <T>(value: T): { ok: true; value: T } => ({ ok: true, value })
export const failure = <P>(problems: P): { ok: false; problems: P } => ({ ok: false, problems })
