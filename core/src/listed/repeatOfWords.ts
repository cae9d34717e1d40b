/** A name without what it says of its repeats, and that in words that a repeat is written with; empty where it says nothing. */
export interface RepeatSaid {
  name: string
  repeats: string
}

const stretches = 'week|unit|day'
const number = '(\\d{1,2})'
const range = new RegExp(
  `^(weeks?|units?|days?)\\s+${number}\\s*(?:-|–|—|to|until)\\s*${number}\\b`,
  'iu',
)
const aside =
  /[\s,;–—-]*[([]?\s*((?:each|every(?: other)?|per)\s+(?:week|unit|day)s?|weekly|daily|(\d{1,2})\s*(?:times|×)|[×x]\s*(\d{1,2}))\s*[)\]]?\s*$/iu
const adjective = /^(weekly|daily)\s/iu

const perWords = (said: string): string => {
  const words = said.toLowerCase().replace(/\s+/g, ' ')
  if (words === 'weekly') return 'each week'
  if (words === 'daily') return 'each day'
  const every = new RegExp(`^every other (${stretches})s?$`).exec(words)
  if (every) return `even ${every[1]}s`
  return words.replace(/^(?:every|per)/, 'each').replace(/s$/, '')
}

/**
 * What a name says of how often its part comes: `Weeks 1–15`, `Quiz (each week)`, `Lab report × 3`, `Weekly quiz`. A range of weeks
 * is named by the number of each.
 */
export const repeatOfWords = (text: string): RepeatSaid => {
  const said = text.trim()
  const ranged = range.exec(said)
  if (ranged) {
    const [whole, word = '', from = '', to = ''] = ranged
    const per = word.toLowerCase().replace(/s$/, '')
    const title = `${word.charAt(0).toUpperCase()}${per.slice(1)}`
    const rest = said.slice(whole.length)
    if (Number(from) < Number(to))
      return {
        name: `${title} {${per === 'day' ? 'number' : per}}${rest}`,
        repeats: `each ${per}, ${Number(from)} to ${Number(to)}`,
      }
  }
  const after = aside.exec(said)
  if (after && after.index > 0) {
    const [, words = '', times, crossed] = after
    const count = times ?? crossed
    return {
      name: said.slice(0, after.index).trim(),
      repeats: count === undefined ? perWords(words) : `${Number(count)} times`,
    }
  }
  const before = adjective.exec(said)
  return { name: said, repeats: before ? perWords(before[1] ?? '') : '' }
}
