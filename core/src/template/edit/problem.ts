import { failure, type Problem } from '../../document/index.ts'

/** Why an edit could not be made, and where, in words. `clash` carries what stands there now and what was to be written. */
export type EditProblem =
  | { code: 'clash'; where: string; present: unknown; wanted: unknown }
  | { code: 'gone'; where: string }
  | { code: 'not-allowed'; where: string; problems: Problem[] }

export const gone = (where: string) => failure<EditProblem>({ code: 'gone', where })

/** @param path JSON Pointer of what is not allowed */
export const notAllowed = (where: string, path: string, found: string, expected: string) =>
  failure<EditProblem>({
    code: 'not-allowed',
    where,
    problems: [{ code: 'not-allowed', path, found, expected }],
  })
