import { escapeHtml } from '../template/index.ts'
import type { Mark } from './style.ts'

const tagOf: Readonly<Record<Mark, readonly [open: string, close: string]>> = {
  strong: ['<strong>', '</strong>'],
  em: ['<em>', '</em>'],
  s: ['<s>', '</s>'],
  sup: ['<sup>', '</sup>'],
  sub: ['<sub>', '</sub>'],
  code: ['<code>', '</code>'],
}
const inOrder = Object.keys(tagOf) as Mark[]

/** What only parts words, however much of it there is. */
export const spaces = /[\s\u00a0\u200b\ufeff]+/gu

/** Text as it stands out; spaces at its ends stand outside. */
export const marked = (text: string, marks: ReadonlySet<Mark>): string => {
  const [, before = '', words = '', after = ''] = /^(\s*)([\s\S]*?)(\s*)$/.exec(text) ?? []
  if (words === '') return escapeHtml(text)
  const chosen = inOrder.filter((mark) => marks.has(mark))
  return `${before}${chosen.map((mark) => tagOf[mark][0]).join('')}${escapeHtml(words)}${chosen
    .toReversed()
    .map((mark) => tagOf[mark][1])
    .join('')}${after}`
}

/** One line of HTML without what only editors put there: doubled spaces, marks that end and begin again, line ends at its ends. */
export const tidied = (inline: string): string => {
  let text = inline.replace(spaces, ' ')
  for (const mark of inOrder) {
    const [open, close] = tagOf[mark]
    text = text.replaceAll(close + open, '').replaceAll(`${close} ${open}`, ' ')
  }
  return withoutEnds(text.replace(/ ?<br> ?/g, '<br>'))
}
/** Without the spaces and line ends it begins and ends with. By hand: a pattern for the end would look from each of many anew. */
const withoutEnds = (text: string): string => {
  let end = text.trimEnd()
  while (end.endsWith('<br>')) end = end.slice(0, -4).trimEnd()
  return end.replace(/^(?:\s|<br>)+/, '')
}
/** Whether there are words in it, or a picture. */
export const saysSomething = (inline: string): boolean =>
  inline.replace(/<(?!img )[^>]*>/g, '').trim() !== ''
