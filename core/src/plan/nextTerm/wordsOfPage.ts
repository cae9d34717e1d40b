import { analysePage } from '../../page/index.ts'

/** What HTML says, without its tags. */
export const wordsOfPage = (html: string): string =>
  analysePage(html)
    .paragraphs.map((paragraph) => paragraph.text)
    .join(' ')
