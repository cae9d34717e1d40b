import type { z } from 'zod'
import { failure, success, type Problem, type Result } from './result.ts'

const longestShown = 80
/** Nobody mends more places than this before trying again. */
const mostTold = 200

/** A value as it is quoted in a problem: JSON, cut to 80 characters. */
export const quoteValue = (value: unknown): string => {
  const text = value === undefined ? 'nothing' : (JSON.stringify(value) ?? String(value))
  return text.length > longestShown ? `${text.slice(0, longestShown - 1)}…` : text
}

/** JSON Pointer (RFC 6901) of a path of keys and indexes. The root is the empty string. */
export const jsonPointer = (path: readonly PropertyKey[]): string =>
  path.map((step) => `/${String(step).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('')

const valueAt = (root: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>(
    (at, step) =>
      at !== null && typeof at === 'object'
        ? (at as Record<PropertyKey, unknown>)[step]
        : undefined,
    root,
  )

type Issue = z.core.$ZodIssue

const problemsOfIssue = (
  root: unknown,
  issue: Issue,
  prefix: readonly PropertyKey[],
): Problem[] => {
  const path = [...prefix, ...issue.path]
  const at = jsonPointer(path)
  const found = quoteValue(valueAt(root, path))
  switch (issue.code) {
    case 'unrecognized_keys':
      return issue.keys.map((key) => ({
        code: 'unknown-field',
        path: jsonPointer([...path, key]),
        found: quoteValue(valueAt(root, [...path, key])),
        expected: 'no such field here: remove it or correct its name',
      }))
    case 'invalid_type':
      return [
        {
          code: found === 'nothing' ? 'missing' : 'wrong-type',
          path: at,
          found,
          expected: `a value of type ${issue.expected}`,
        },
      ]
    case 'invalid_value':
      return [
        {
          code: 'not-allowed',
          path: at,
          found,
          expected: `one of ${issue.values.map(quoteValue).join(', ')}`,
        },
      ]
    case 'too_small':
      return [
        {
          code: 'too-small',
          path: at,
          found,
          expected: `${issue.origin} of at least ${issue.minimum}`,
        },
      ]
    case 'too_big':
      return [
        {
          code: 'too-big',
          path: at,
          found,
          expected: `${issue.origin} of at most ${issue.maximum}`,
        },
      ]
    case 'invalid_union': {
      const closest = [...issue.errors].sort((a, b) => a.length - b.length)[0]
      if (closest && closest.length > 0)
        return closest.flatMap((inner) => problemsOfIssue(root, inner, path))
      return [{ code: 'not-allowed', path: at, found, expected: issue.message }]
    }
    default:
      return [{ code: 'not-valid', path: at, found, expected: issue.message }]
  }
}

/**
 * Reads a parsed JSON value as a document of one schema.
 * @returns the document, or the problems, the first two hundred, each with its JSON Pointer, what was found and what was expected.
 */
export const readDocument = <S extends z.ZodType>(
  schema: S,
  json: unknown,
): Result<z.output<S>> => {
  const read = schema.safeParse(json)
  if (read.success) return success(read.data)
  return failure(
    read.error.issues.slice(0, mostTold).flatMap((issue) => problemsOfIssue(json, issue, [])),
  )
}
