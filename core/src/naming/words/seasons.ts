/** Names of terms by season, in English, French and Spanish; folded, without accents. Common practice, no source. */
import { withoutAccents } from '../../calendar/index.ts'

const lines = [
  'autumn fall aut automne otono',
  'winter win hiver invierno',
  'spring spr printemps primavera',
  'summer sum ete verano',
]
const initials: Readonly<Record<string, string>> = {
  f: 'autumn',
  fa: 'autumn',
  a: 'autumn',
  au: 'autumn',
  w: 'winter',
  wi: 'winter',
  sp: 'spring',
  s: 'spring',
  su: 'summer',
}
const byWord = new Map(
  lines.flatMap((line) => line.split(' ').map((word) => [word, line.split(' ')[0] ?? ''] as const)),
)

/** The season of a folded word, or null. */
export const seasonOf = (word: string): string | null => byWord.get(withoutAccents(word)) ?? null

/** The season of an initial written before a year of two digits, as in F26 or Sp27, or null. */
export const seasonOfInitial = (word: string): string | null => initials[word] ?? null
