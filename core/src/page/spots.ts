import { escapeHtml, isNote } from '../template/index.ts'
import { analysePage } from './analysePage.ts'
import { normalHtml } from './blockRegions.ts'

/** A text without its white space, which platforms set as they like, and the place of each sign in it. */
const dense = (text: string): { text: string; at: number[] } => {
  const at: number[] = []
  let said = ''
  for (let i = 0; i < text.length; i++) {
    const sign = text[i] ?? ''
    if (/\s/.test(sign)) continue
    said += sign
    at.push(i)
  }
  return { text: said, at }
}

/**
 * What stands in the spots of a text, in order: its own sentences have to stand around them, word for word, space aside. In
 * time that grows with the text.
 * @param wanted the text as it is written, with what each spot says until it is filled in
 * @param prompts what the spots say, in order
 * @returns null where the sentences around them are others
 */
export const fillings = (
  wanted: string,
  prompts: readonly string[],
  text: string,
): string[] | null => {
  const around: string[] = []
  let rest = dense(wanted).text
  for (const prompt of prompts) {
    const { text: said } = dense(prompt)
    const at = rest.indexOf(said)
    if (at < 0) return null
    around.push(rest.slice(0, at))
    rest = rest.slice(at + said.length)
  }
  const stands = dense(text)
  const [first = '', ...between] = around
  if (!stands.text.startsWith(first) || !stands.text.endsWith(rest)) return null
  const end = stands.text.length - rest.length
  if (first.length > end) return null
  const found: string[] = []
  const find = (from: number, to: number) =>
    found.push(from === to ? '' : text.slice(stands.at[from], (stands.at[to - 1] ?? 0) + 1))
  let from = first.length
  for (const words of between) {
    // At least one sign is left to each spot, where there is nothing between two of them.
    const at = stands.text.indexOf(words, words === '' ? from + 1 : from)
    if (at < 0 || at + words.length > end) return null
    find(from, at)
    from = at + words.length
  }
  if (prompts.length === 0) return from === end ? [] : null
  find(from, end)
  return found
}

/** The prompts that stand in a text, in their order there; none of them over another. */
export const promptsIn = (text: string, prompts: readonly string[]): string[] => {
  const standing = [...new Set(prompts)].flatMap((prompt) => {
    const places: { prompt: string; at: number }[] = []
    for (let at = text.indexOf(prompt); at >= 0; at = text.indexOf(prompt, at + prompt.length))
      places.push({ prompt, at })
    return places
  })
  let from = 0
  return standing
    .sort((one, other) => one.at - other.at)
    .flatMap(({ prompt, at }) => {
      if (at < from) return []
      from = at + prompt.length
      return [prompt]
    })
}

const textOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join(' ')

/** HTML with other pieces in place of some, each where it stands next. */
const replaced = (html: string, pieces: readonly string[], by: readonly string[]): string => {
  let now = html
  let from = 0
  pieces.forEach((piece, i) => {
    const at = now.indexOf(piece, from)
    if (at < 0) return
    const stands = by[i] ?? piece
    now = now.slice(0, at) + stands + now.slice(at + piece.length)
    from = at + stands.length
  })
  return now
}

/** Whatever a spot may have said: which of them were spots is not kept with what was written. */
const bracketed = /\[[^[\]<>]{1,200}\]/g

/**
 * A block's new HTML with what was filled into the spots of its earlier one, each where the new one asks for the same.
 * @param before as it was written, `there` as it stands now, `now` as it is to be written
 * @param asks what the spots of the new one say, as HTML
 * @returns null where more than the spots was changed, where what stands in them is more than words, or where something was
 * filled in that the new one does not ask for
 */
export const refilled = (
  before: string,
  there: string,
  now: string,
  asks: readonly string[],
): string | null => {
  const pieces = before.match(bracketed) ?? []
  const answers = fillings(textOf(before), pieces.map(textOf), textOf(there))
  if (!answers) return null
  const written = answers.map(escapeHtml)
  const rebuilt = replaced(before, pieces, written)
  // The mark may have lost its attributes, and stand there as a mere wrapper.
  const alone = [rebuilt, `<div>${rebuilt}</div>`].some(
    (html) => normalHtml(html) === normalHtml(there),
  )
  if (!alone) return null
  const left = pieces.map((piece, i) => ({ piece, answer: written[i] ?? piece }))
  const carried = asks.map((ask) => {
    const at = left.findIndex(({ piece }) => piece === ask)
    return at < 0 ? ask : (left.splice(at, 1)[0]?.answer ?? ask)
  })
  const isLost = left.some(
    ({ piece, answer }) => answer !== piece && !(isNote(piece) && answer === ''),
  )
  return isLost ? null : replaced(now, asks, carried)
}
