import { remember } from '../../remember/index.ts'
import { isMistyped, isShortFor } from '../words/likeness.ts'
import { seasonOf, seasonOfInitial } from '../words/seasons.ts'
import {
  isMark,
  isWord,
  skipSpace,
  tokensOf,
  withBrackets,
  type Stretch,
  type Token,
} from './tokens.ts'

/** A course code taken apart: NAV 110. */
interface CodeShape {
  letters: string
  digits: string
}
const shapeOf = (code: string): CodeShape | null => {
  const shape = /^(\p{L}{1,6})[^\p{L}\d]?(\d{1,5}\p{L}?)$/u.exec(code)
  return shape
    ? { letters: (shape[1] ?? '').toLowerCase(), digits: (shape[2] ?? '').toLowerCase() }
    : null
}

/** Index after the digits of a code whose letters stand at an index, or null. */
const codeEnd = (tokens: readonly Token[], at: number): { digits: string; to: number } | null => {
  const next = tokens[at + 1]?.kind === 'number' ? at + 1 : at + 2
  const between = tokens[at + 1]
  if (next === at + 2 && !(between?.kind === 'space' || isMark(between, '-_.'))) return null
  const digits = tokens[next]
  if (digits?.kind !== 'number') return null
  return { digits: digits.text, to: next + 1 }
}

/** A course code in a name: this course's, or another's of the same shape. */
export interface SaidCode extends Stretch {
  own: boolean
  text: string
}

/**
 * The course codes in a name, however spaced or joined. Another course's is told by its shape: as many letters, written
 * large, and as many digits.
 */
export const codesSaid = (
  tokens: readonly Token[],
  name: string,
  origin: readonly number[],
  code: string,
): SaidCode[] => {
  const own = shapeOf(code)
  if (!own) return []
  const found: SaidCode[] = []
  tokens.forEach((token, at) => {
    if (token.kind !== 'word' || token.text.length !== own.letters.length) return
    const end = codeEnd(tokens, at)
    if (!end) return
    const written = name.slice(origin[token.from], origin[token.to])
    const text = name.slice(origin[token.from], origin[tokens[end.to - 1]?.to ?? token.to])
    if (token.text === own.letters && end.digits === own.digits.replace(/\D+$/, ''))
      found.push({ own: true, text, ...withBrackets(tokens, { from: at, to: end.to }) })
    else if (
      end.digits.length === own.digits.length &&
      (written === written.toUpperCase() || token.text === own.letters)
    )
      found.push({ own: false, text, from: at, to: end.to })
  })
  return found
}

/** A term in a name: season and year, in either order or as F26. */
export interface SaidTerm extends Stretch {
  season: string
  year: number
}

const yearOf = (token: Token | undefined): number | null =>
  token?.kind !== 'number'
    ? null
    : token.text.length === 4
      ? Number(token.text)
      : token.text.length === 2
        ? 2000 + Number(token.text)
        : null

export const termsSaid = (tokens: readonly Token[]): SaidTerm[] => {
  const found: SaidTerm[] = []
  tokens.forEach((token, at) => {
    if (token.kind !== 'word') return
    const initial = seasonOfInitial(token.text)
    const tight = yearOf(tokens[at + 1])
    if (
      initial !== null &&
      tight !== null &&
      tokens[at + 1]?.text.length === 2 &&
      tokens[at + 2]?.kind !== 'word'
    ) {
      found.push({
        season: initial,
        year: tight,
        ...withBrackets(tokens, { from: at, to: at + 2 }),
      })
      return
    }
    const season = seasonOf(token.text)
    if (season === null) return
    let next = isMark(tokens[at + 1], '.') ? at + 2 : at + 1
    next = isMark(tokens[next], '_-') ? next + 1 : skipSpace(tokens, next)
    if (isMark(tokens[next], "'")) next += 1
    const year = yearOf(tokens[next])
    if (year !== null) {
      found.push({ season, year, ...withBrackets(tokens, { from: at, to: next + 1 }) })
      return
    }
    const before = tokens[at - 1]?.kind === 'space' ? at - 2 : at - 1
    const yearBefore = tokens[before]?.text.length === 4 ? yearOf(tokens[before]) : null
    if (yearBefore !== null)
      found.push({
        season,
        year: yearBefore,
        ...withBrackets(tokens, { from: before, to: at + 1 }),
      })
  })
  return found
}

/** Season and year of a term's title, or null where it has none. */
export const seasonAndYear = (title: string): { season: string; year: number } | null => {
  const words = title.toLowerCase().match(/\p{L}+|\d{4}/gu) ?? []
  const season = words.map(seasonOf).find((season) => season !== null)
  const year = words.find((word) => /^\d{4}$/.test(word))
  return season && year ? { season, year: Number(year) } : null
}

const same = (said: Token, wanted: Token): boolean =>
  said.text === wanted.text ||
  (said.kind === 'word' &&
    wanted.kind === 'word' &&
    (isMistyped(said.text, wanted.text) ||
      (said.text.length >= 3 && isShortFor(said.text, wanted.text)) ||
      (isWord(said, 'and', 'et', 'y') && isWord(wanted, 'and', 'et', 'y'))))

/** Known words found again in a name. `share`: of the words wanted, how many stand there. */
export interface SaidWords extends Stretch {
  share: number
  exact: boolean
}

const solid = (tokens: readonly Token[]): { token: Token; at: number }[] =>
  tokens.flatMap((token, at) =>
    token.kind === 'word' || token.kind === 'number' || isMark(token, '&')
      ? [
          {
            token: isMark(token, '&') ? { ...token, kind: 'word' as const, text: 'and' } : token,
            at,
          },
        ]
      : [],
  )

const wordsOf = remember(5000, (folded: string): Token[] =>
  solid(tokensOf(folded)).map(({ token }) => token),
)

/**
 * Where the words of a known value stand in a name: in a row, each the same, shortened or mistyped; in any order where
 * `anyOrder` says so (a person's name). The stretch with the most of them, or null below half.
 */
export const wordsSaid = (
  tokens: readonly Token[],
  folded: string,
  anyOrder = false,
): SaidWords | null => {
  const wanted = wordsOf(folded)
  const said = solid(tokens)
  const first = wanted[0]
  if (!first) return null
  let best: SaidWords | null = null
  for (let start = 0; start < said.length; start++) {
    const at = said[start]
    if (!at || !(anyOrder ? wanted.some((word) => same(at.token, word)) : same(at.token, first)))
      continue
    let count = 0
    let exact = true
    const left = [...wanted]
    while (count < wanted.length) {
      const next = said[start + count]
      const index = next
        ? anyOrder
          ? left.findIndex((word) => same(next.token, word))
          : left[0] && same(next.token, left[0])
            ? 0
            : -1
        : -1
      const matched = left[index]
      if (!next || !matched) break
      if (next.token.text !== matched.text) exact = false
      left.splice(index, 1)
      count += 1
    }
    const share = count / wanted.length
    if (share >= 0.5 && (best === null || share > best.share))
      best = {
        share,
        exact: exact && share === 1,
        ...withBrackets(tokens, { from: at.at, to: (said[start + count - 1]?.at ?? at.at) + 1 }),
      }
  }
  return best
}
