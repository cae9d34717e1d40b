import { failure, success, type Result } from './result.ts'

/** How much a JSON text may hold before anybody parses it. */
export interface JsonLimits {
  /** How deep lists and objects may stand in one another. */
  depth: number
  /** How many values, those in lists and objects included. */
  values: number
}

/** Nothing that Wickerframe reads or writes nests half as deep: a course's modules take two levels each. */
export const usualDepth = 128

const [quote, backslash, comma, openList, closeList, openObject, closeObject] = [...'"\\,[]{}'].map(
  (character) => character.charCodeAt(0),
)

/** The index after a string that begins at `start`; the length of the text where it does not end. */
const afterString = (text: string, start: number): number => {
  for (let at = start + 1; ; at++) {
    at = text.indexOf('"', at)
    if (at < 0) return text.length
    let slashes = 0
    while (text.charCodeAt(at - 1 - slashes) === backslash) slashes++
    if (slashes % 2 === 0) return at + 1
  }
}

/** What a JSON text goes beyond, told without parsing it, in time in proportion to its length; null for nothing. */
const beyond = (text: string, { depth, values }: JsonLimits): keyof JsonLimits | null => {
  let deep = 0
  let count = 1
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at)
    if (code === quote) at = afterString(text, at) - 1
    else if (code === comma) count++
    else if (code === openList || code === openObject) {
      deep++
      count++
    } else if (code === closeList || code === closeObject) deep--
    if (deep > depth) return 'depth'
    if (count > values) return 'values'
  }
  return null
}

/** Parses JSON that somebody else sent. Its depth and the number of its values are counted first, so that no text can stop the house. */
export const readJson = (text: string, limits: JsonLimits): Result<unknown> => {
  const over = beyond(text, limits)
  if (over !== null)
    return failure([
      {
        code: over === 'depth' ? 'too-deep' : 'too-many',
        path: '',
        found:
          over === 'depth'
            ? `lists or objects more than ${limits.depth} deep in one another`
            : `more than ${limits.values} values`,
        expected:
          over === 'depth'
            ? `at most ${limits.depth} levels; a document of ours needs a dozen or two`
            : `at most ${limits.values} values; send it in parts`,
      },
    ])
  try {
    return success(JSON.parse(text))
  } catch {
    return failure([
      {
        code: 'not-json',
        path: '',
        found: text.length === 0 ? 'nothing' : 'a text that is not JSON',
        expected: 'JSON',
      },
    ])
  }
}
