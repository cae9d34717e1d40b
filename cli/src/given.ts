import { isPlainDate, type Problem, type Result } from '@wickerframe/core'

import { Unusable } from './unusable.ts'

const problemLines = (file: string, problems: readonly Problem[]): string =>
  problems
    .slice(0, 20)
    .map(
      (problem) =>
        `${file}${problem.path === '' ? '' : `, at ${problem.path}`}: found ${problem.found}; expected ${problem.expected}`,
    )
    .concat(problems.length > 20 ? [`and ${problems.length - 20} more`] : [])
    .join('\n')

/** The value of a result. @throws Unusable with the place inside the file */
export const orUnusable = <T>(file: string, result: Result<T>): T => {
  if (!result.ok) throw new Unusable(problemLines(file, result.problems))
  return result.value
}

/** An option that must be given. @throws Unusable */
export const wanted = (name: string, value: string | undefined): string => {
  if (value === undefined)
    throw new Unusable(`--${name} is missing; wickerframe --help tells how it is used`)
  return value
}

export const dateOption = (name: string, value: string | undefined): string | undefined => {
  if (value !== undefined && !isPlainDate(value))
    throw new Unusable(`--${name}: found ${value}; expected a date that exists, written YYYY-MM-DD`)
  return value
}

/** One of a few words. @throws Unusable naming them */
export const wordOption = <W extends string>(
  name: string,
  value: string | undefined,
  words: readonly W[],
  fallback: W,
): W => {
  const word = words.find((word) => word === (value ?? fallback))
  if (word === undefined)
    throw new Unusable(`--${name}: found ${value}; expected ${words.join(' or ')}`)
  return word
}

/** A whole number within bounds. @throws Unusable */
export const numberOption = (
  name: string,
  value: string | undefined,
  least: number,
  most: number,
): number | undefined => {
  if (value === undefined) return undefined
  const number = /^\d{1,6}$/.test(value) ? Number(value) : NaN
  if (!(number >= least && number <= most))
    throw new Unusable(
      `--${name}: found ${value}; expected a whole number from ${least} to ${most}`,
    )
  return number
}
