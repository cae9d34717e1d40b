import { parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { readPasted } from '../paste/index.ts'
import { stepped, type Line } from './line.ts'
import { plain } from './linesOfText.ts'

type Node = Tree.ChildNode
type Element = Tree.Element
const isElement = (node: Node): node is Element => 'tagName' in node

const nested = new Set(['ul', 'ol', 'table'])
/** The words of an element, without those of lists and tables inside it. */
const wordsOf = (element: Element): string =>
  element.childNodes
    .map((node) =>
      isElement(node)
        ? nested.has(node.tagName)
          ? ''
          : node.tagName === 'br'
            ? '\n'
            : wordsOf(node)
        : 'value' in node
          ? node.value
          : '',
    )
    .join('')

const said = (text: string): string =>
  text
    .split('\n')
    .map((line) => plain(line).replace(/\s+/g, ' '))
    .join('\n')
    .trim()

/** What a program copied as HTML, as lines: headings hold what comes after them, lists what is nested in them; rows of tables. */
export const linesOfHtml = (html: string): { lines: Line[]; isTable: boolean } => {
  const lines: Line[] = []
  let rows = 0
  /** Levels of headings that are open, so that what follows stands in them. */
  const headings: number[] = []
  const put = (depth: number, text: string): void => {
    for (const line of text.split('\n')) if (said(line)) lines.push({ depth, cells: [said(line)] })
  }
  const walk = (nodes: readonly Node[], depth: number): void => {
    for (const node of nodes) {
      if (!isElement(node)) continue
      const heading = /^h([1-6])$/.exec(node.tagName)
      const here = headings.length + depth
      if (heading) {
        const level = Number(heading[1])
        while (headings.length > 0 && (headings.at(-1) ?? 0) >= level) headings.pop()
        put(headings.length + depth, wordsOf(node))
        headings.push(level)
      } else if (node.tagName === 'li') {
        put(here, wordsOf(node))
        walk(
          node.childNodes.filter((child) => isElement(child) && nested.has(child.tagName)),
          depth + 1,
        )
      } else if (node.tagName === 'tr') {
        rows += 1
        lines.push({
          depth: here,
          cells: node.childNodes
            .filter(isElement)
            .map((cell) => said(wordsOf(cell)).replaceAll('\n', ' ')),
        })
      } else if (node.tagName === 'p') put(here, wordsOf(node))
      else walk(node.childNodes, depth)
    }
  }
  walk(parseFragment(readPasted(html).html).childNodes, 0)
  return { lines: stepped(lines), isTable: rows > 0 && rows === lines.length }
}
