import { parseFragment } from 'parse5'
import type { PageNode } from './pageNode.ts'
import { parseTidy } from './parseTidy.ts'

/**
 * The nodes of a page, as the HTML standard says they are to be read. Most pages are written by editors and are tidy; they
 * take a short way. All others, and every tag that is not known to be harmless, are for parse5.
 */
export const parsePage = (html: string): readonly PageNode[] =>
  parseTidy(html) ?? parseFragment(html).childNodes
