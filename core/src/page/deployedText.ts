import { remember } from '../remember/index.ts'
import { analysePage, type Paragraph } from './analysePage.ts'

/** The paragraphs of what deployment writes, kept by the HTML: blocks are the same in many courses and in every check. */
export const paragraphsOf = remember(
  4000,
  (html: string): Paragraph[] => analysePage(html).paragraphs,
)

export const textIn = (paragraphs: readonly Paragraph[]): string =>
  paragraphs.map((paragraph) => paragraph.text).join(' ')

/** What deployment writes, as text. */
export const textOf = remember(4000, (html: string): string => textIn(paragraphsOf(html)))
