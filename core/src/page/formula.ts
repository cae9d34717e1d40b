import type { PageElement, PageNode, PageText } from './pageNode.ts'

/** What holds a formula once more in another language, e.g. as it was typed; nobody sees it. */
const notSaid = new Set(['annotation', 'annotation-xml'])

/** The signs of a formula in the order in which they stand (MathML Core's token elements), a space between each two. */
export const formulaText = (formula: PageElement): string => {
  const signs: string[] = []
  const visit = (nodes: readonly PageNode[]): void => {
    for (const node of nodes) {
      if (node.nodeName === '#text') {
        const text = (node as PageText).value.trim()
        if (text !== '') signs.push(text)
      } else if ('tagName' in node && !notSaid.has(node.tagName)) visit(node.childNodes)
    }
  }
  visit(formula.childNodes)
  return signs.join(' ')
}
