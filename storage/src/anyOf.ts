import type { Value } from './transaction.ts'

/**
 * The list of an `IN`: `sql` with its brackets, and the values to bind. Its length is a power of two, the last value
 * repeated, so that lists of many lengths share a few prepared statements. An empty list holds nothing.
 */
export const anyOf = (values: readonly Value[]): { sql: string; values: Value[] } => {
  const last = values.at(-1)
  if (last === undefined) return { sql: '(NULL)', values: [] }
  const length = 2 ** Math.ceil(Math.log2(values.length))
  return {
    sql: `(${Array.from({ length }, () => '?').join(', ')})`,
    values: [...values, ...Array.from({ length: length - values.length }, () => last)],
  }
}
