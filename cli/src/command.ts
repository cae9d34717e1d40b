/** What was given on the command line. */
export const options = {
  template: { type: 'string' },
  facts: { type: 'string' },
  course: { type: 'string' },
  'as-of': { type: 'string' },
  on: { type: 'string' },
  format: { type: 'string' },
  pairs: { type: 'boolean' },
  since: { type: 'string' },
  jobs: { type: 'string' },
  context: { type: 'string' },
  infer: { type: 'boolean' },
  rules: { type: 'string' },
  findings: { type: 'string' },
  from: { type: 'string' },
  to: { type: 'string' },
  base: { type: 'string' },
  conflicts: { type: 'string' },
  'write-course': { type: 'string' },
  'write-base': { type: 'string' },
  term: { type: 'string' },
  'next-term': { type: 'string' },
  session: { type: 'string' },
  weeks: { type: 'string' },
  units: { type: 'string' },
  'meeting-days': { type: 'string' },
  'opens-before': { type: 'string' },
  'closes-after': { type: 'string' },
  help: { type: 'boolean', short: 'h' },
  version: { type: 'boolean' },
} as const
export type OptionName = keyof typeof options
export type Values = {
  [Name in OptionName]?: (typeof options)[Name]['type'] extends 'boolean' ? boolean : string
}

/** What the command line reads and writes; a test gives its own. */
export interface Streams {
  out: (text: string) => void
  error: (text: string) => void
  /** All of standard input. */
  input: () => Promise<Uint8Array>
  now: () => Date
}

/** Runs, and gives the exit code. Only a command that takes files is given any. */
export type Command = (
  values: Values,
  streams: Streams,
  files: readonly string[],
) => Promise<number>
