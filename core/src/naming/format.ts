import { failure, success, type Result } from '../document/index.ts'
import { isDateStyle } from '../calendar/index.ts'
import { remember } from '../remember/index.ts'
import { editDistance } from './words/likeness.ts'
import { definitionOf, fields, isFieldName, type FieldName } from './fields.ts'

export const longestFormat = 500
export const mostFields = 64
export const longestName = 2000

export type FormatNode =
  | { node: 'text'; text: string }
  | { node: 'field'; field: FieldName; style: string | null }
  | { node: 'optional'; nodes: FormatNode[] }

/** A parsed naming format. */
export interface NamingFormat {
  source: string
  nodes: FormatNode[]
}

/** A mistake in a format: where, what, and what to do. */
export interface FormatProblem {
  code:
    | 'too-long'
    | 'too-many-fields'
    | 'unknown-field'
    | 'bad-style'
    | 'unclosed'
    | 'stray-brace'
    | 'empty'
    | 'nested-optional'
  /** Character offset in the source. */
  at: number
  message: string
  suggestion: string | null
}

/** The known word nearest to one that is not known, or null when none is near. */
export const nearestWord = (word: string, known: readonly string[]): string | null => {
  const lower = word.toLowerCase().slice(0, 40)
  const ranked = known
    .map((word) => ({ one: word, cost: editDistance(lower, word.toLowerCase()) }))
    .sort((a, b) => a.cost - b.cost)
  const best = ranked[0]
  return best && best.cost <= Math.max(1, Math.floor(word.length / 2)) ? best.one : null
}

const styleProblem = (field: FieldName, style: string): string | null => {
  const { type } = definitionOf(field)
  if (type === 'letter' || type === 'span') return 'left out: it has none'
  if (type === 'integer')
    return /^0{1,4}$/.test(style) ? null : 'zeros, as many as digits are wanted, e.g. 00'
  if (type === 'date' || type === 'range')
    return isDateStyle(style) ? null : 'date letters such as MMM d (yyyy, MM, MMM, d, EEE)'
  if (type === 'choice')
    return style.includes('|') ? null : 'the choices with a bar between them, e.g. Lab|Reading'
  return /^\d+-\d+ words$/.test(style) ? null : 'a bound such as 2-8 words'
}

/** Words as a format that reads as they do: braces and backslashes stand for themselves. */
export const escapedFormat = (words: string): string =>
  words.replace(/[\\{}]/g, (one) => `\\${one}`)

/**
 * Parses a naming format: text, `{field}`, `{field, style}`, an optional stretch `{? … ?}`; `{{`, `}}` and a
 * backslash write the characters themselves.
 * @returns the format, or its first mistakes with their positions
 */
export const parseFormat = (source: string): Result<NamingFormat, FormatProblem[]> => {
  const problems: FormatProblem[] = []
  const complain = (
    code: FormatProblem['code'],
    at: number,
    message: string,
    suggestion: string | null = null,
  ) => {
    problems.push({ code, at, message, suggestion })
  }
  if (source.length > longestFormat) {
    complain(
      'too-long',
      longestFormat,
      `a naming format has at most ${longestFormat} characters; this one has ${source.length}`,
    )
    return failure(problems)
  }
  if (source.trim() === '') {
    complain(
      'empty',
      0,
      'a naming format cannot be empty',
      'write the name as it should read, e.g. Week {week}',
    )
    return failure(problems)
  }
  const root: FormatNode[] = []
  let open: { nodes: FormatNode[]; at: number } | null = null
  let text = ''
  let count = 0
  const into = (): FormatNode[] => open?.nodes ?? root
  const flush = () => {
    if (text !== '') into().push({ node: 'text', text })
    text = ''
  }
  let at = 0
  while (at < source.length) {
    const two = source.slice(at, at + 2)
    if (source[at] === '\\' && at + 1 < source.length) {
      text += source[at + 1]
      at += 2
    } else if (two === '{{' || two === '}}') {
      text += two[0]
      at += 2
    } else if (two === '{?') {
      flush()
      if (open) complain('nested-optional', at, 'an optional stretch cannot stand inside another')
      else open = { nodes: [], at }
      at += 2
    } else if (two === '?}') {
      flush()
      if (open) {
        root.push({ node: 'optional', nodes: open.nodes })
        open = null
      } else
        complain(
          'stray-brace',
          at,
          'an optional stretch ends here that did not begin',
          'write {? before it, or ?}} for the characters',
        )
      at += 2
    } else if (source[at] === '}') {
      complain(
        'stray-brace',
        at,
        'a closing brace without its opening one',
        'write }} for the character itself',
      )
      at += 1
    } else if (source[at] === '{') {
      flush()
      const end = source.indexOf('}', at)
      if (end === -1) {
        complain('unclosed', at, 'a field that is not closed', 'add } after its name')
        break
      }
      const inside = source.slice(at + 1, end)
      const comma = inside.indexOf(',')
      const name = (comma === -1 ? inside : inside.slice(0, comma)).trim()
      const style = comma === -1 ? null : inside.slice(comma + 1).trim()
      count += 1
      if (count === mostFields + 1)
        complain('too-many-fields', at, `a naming format has at most ${mostFields} fields`)
      if (isFieldName(name)) {
        const wanted =
          style === null
            ? definitionOf(name).type === 'choice'
              ? 'the choices, e.g. {kind, Lab|Reading}'
              : null
            : styleProblem(name, style)
        if (wanted)
          complain(
            'bad-style',
            at +
              1 +
              (comma === -1 ? 0 : inside.length - inside.slice(comma + 1).trimStart().length),
            `the style of ${name} should be ${wanted}`,
          )
        into().push({ node: 'field', field: name, style })
      } else {
        const near = nearestWord(name, Object.keys(fields))
        complain(
          'unknown-field',
          at + 1,
          `unknown field ${name === '' ? 'without a name' : name}`,
          name === 'reader'
            ? 'the first name of the reader stands within pages only'
            : near
              ? `did you mean ${near}?`
              : `known fields: ${Object.keys(fields).join(', ')}`,
        )
      }
      at = end + 1
    } else {
      text += source[at]
      at += 1
    }
  }
  flush()
  if (open)
    complain('unclosed', open.at, 'an optional stretch that is not closed', 'add ?} where it ends')
  return problems.length > 0 ? failure(problems) : success({ source, nodes: root })
}

/**
 * A format that is known to be right (it came out of a document that was read).
 * @throws SyntaxError with the first mistake otherwise
 */
export const formatOf = remember(5000, (source: string): NamingFormat => {
  const result = parseFormat(source)
  if (!result.ok)
    throw new SyntaxError(
      `naming format ${JSON.stringify(source)}: ${result.problems[0]?.message ?? ''}`,
    )
  return result.value
})

/** Whether any text may stand in a field, so that only what follows it tells its end. */
const isOpenEnded = (field: FieldName): boolean => definitionOf(field).type === 'text'
const isDigits = (field: FieldName): boolean =>
  definitionOf(field).type === 'integer' || definitionOf(field).type === 'span'

/**
 * Why a reader could not tell the fields of a format apart, or null. Two fields that can hold any text need something
 * between them that is not only spaces; two numbers need anything at all.
 */
export const ambiguityOf = (format: NamingFormat): string | null => {
  let before: FieldName | null = null
  let touching = false
  for (const node of format.nodes.flatMap((node) =>
    node.node === 'optional' ? node.nodes : [node],
  )) {
    if (node.node === 'text') {
      touching = false
      if (node.text.trim() !== '') before = null
      continue
    }
    if (node.node !== 'field') continue
    if (before && isOpenEnded(before) && isOpenEnded(node.field))
      return `${before} and ${node.field} stand side by side: nothing tells where one ends, so put a mark such as · between them`
    if (before && touching && isDigits(before) && isDigits(node.field))
      return `the numbers ${before} and ${node.field} touch: nothing tells where one ends, so put a mark such as . between them`
    before = node.field
    touching = true
  }
  return null
}
