import { parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { readPasted } from '../paste/index.ts'

type Node = Tree.ChildNode
type Element = Tree.Element
const isElement = (node: Node): node is Element => 'tagName' in node
const isList = (node: Node): boolean =>
  isElement(node) && (node.tagName === 'ol' || node.tagName === 'ul')

const wordsOf = (nodes: readonly Node[]): string =>
  nodes
    .map((node) =>
      isElement(node)
        ? isList(node)
          ? ''
          : node.tagName === 'br'
            ? '\n'
            : wordsOf(node.childNodes)
        : 'value' in node
          ? node.value
          : '',
    )
    .join('')
const lineOf = (nodes: readonly Node[]): string =>
  wordsOf(nodes)
    .split('\n')
    .map((line) => line.replace(/\s+/g, ' ').trim())
    .filter((line) => line !== '')
    .join('\n')

/** Whether all words of a line are emphasised, as people mark what is right. */
const isEmphasised = (nodes: readonly Node[]): boolean => {
  const all = nodes.filter((node) => !isList(node) && lineOf([node]) !== '')
  return (
    all.length > 0 &&
    all.every(
      (node) =>
        isElement(node) &&
        (node.tagName === 'strong' ||
          node.tagName === 'b' ||
          (node.tagName === 'p' && isEmphasised(node.childNodes))),
    )
  )
}

/**
 * Questions that a program copied as HTML, as people type them: what a list numbers by itself is numbered, what is nested in it is
 * lettered, and an answer that is wholly bold beside others that are not has a star.
 * @returns null where there is no list in it: its plain text says it all
 */
export const typedOfHtml = (html: string): string | null => {
  const nodes = parseFragment(readPasted(html).html).childNodes
  const lines: string[] = []
  let number = 0
  let lists = 0
  const answers = (list: Element): void => {
    const items = list.childNodes.filter(
      (node): node is Element => isElement(node) && node.tagName === 'li',
    )
    const bold = items.filter((item) => isEmphasised(item.childNodes))
    const marks = bold.length < items.length ? new Set(bold) : new Set<Element>()
    items.forEach((item, i) => {
      const letter = String.fromCodePoint(97 + (i % 26))
      lines.push(`${marks.has(item) ? '*' : ''}${letter}) ${lineOf(item.childNodes)}`)
    })
  }
  const walk = (list: readonly Node[]): void => {
    for (const node of list) {
      if (!isElement(node)) continue
      if (isList(node)) {
        lists += 1
        for (const item of node.childNodes) {
          if (!isElement(item) || item.tagName !== 'li') continue
          number += 1
          lines.push(`${number}. ${lineOf(item.childNodes)}`)
          for (const child of item.childNodes) if (isElement(child) && isList(child)) answers(child)
        }
      } else if (/^(?:p|h[1-6]|blockquote)$/.test(node.tagName)) {
        const line = lineOf(node.childNodes)
        if (line !== '') lines.push(line)
      } else walk(node.childNodes)
    }
  }
  walk(nodes)
  return lists === 0 ? null : lines.join('\n')
}
