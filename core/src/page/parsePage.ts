import { parseFragment } from 'parse5'
import { parseTidy } from './parseTidy.ts'

/** A node of a page, with what is read of it: an element, text, or something else that is passed over. */
export type PageNode = PageElement | PageText | { nodeName: string }
export interface PageText {
  nodeName: '#text'
  value: string
}
export interface PageElement {
  nodeName: string
  tagName: string
  attrs: readonly { name: string; value: string }[]
  childNodes: readonly PageNode[]
}

/**
 * The nodes of a page, as the HTML standard says they are to be read. Most pages are written by editors and are tidy; they
 * take a short way. All others, and every tag that is not known to be harmless, are for parse5.
 */
export const parsePage = (html: string): readonly PageNode[] =>
  parseTidy(html) ?? parseFragment(html).childNodes
