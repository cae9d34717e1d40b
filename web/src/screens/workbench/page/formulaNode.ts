import { Node, type Editor } from '@tiptap/react'
import { NodeSelection } from '@tiptap/pm/state'
import { letIn } from '@wickerframe/core'

/** A page that loads nothing. */
const inert = document.implementation.createHTMLDocument()
const formulaIn = (markup: string): Element | null => {
  const holder = inert.createElement('template')
  holder.innerHTML = letIn(markup).html
  return holder.content.querySelector('math')
}

/** What a formula says: as it was typed (TeX), where that came along, and how it is read aloud. */
export interface FormulaSaid {
  tex: string | null
  words: string
  isAlone: boolean
}
export const saidBy = (markup: string): FormulaSaid => {
  const formula = formulaIn(markup)
  const typed = formula?.querySelector('annotation[encoding="application/x-tex"]')
  return {
    tex: typed?.textContent ?? null,
    words: formula?.getAttribute('alttext') ?? formula?.getAttribute('aria-label') ?? '',
    isAlone: formula?.getAttribute('display') === 'block',
  }
}
/** A formula (MathML) that is read aloud in these words; nothing where the markup is none. */
export const withWords = (markup: string, words: string, isAlone: boolean): string => {
  const formula = formulaIn(markup)
  if (!formula) return ''
  formula.setAttribute('alttext', words)
  if (isAlone) formula.setAttribute('display', 'block')
  else formula.removeAttribute('display')
  return letIn(formula.outerHTML).html
}

/** A formula (MathML) in a line of text, kept as it is written. */
export const FormulaNode = Node.create({
  name: 'formula',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ markup: { default: '', rendered: false } }),
  parseHTML: () => [
    { tag: 'math', getAttrs: (element) => ({ markup: letIn(element.outerHTML).html }) },
  ],
  renderHTML: ({ node }) => ({
    dom: formulaIn(String(node.attrs['markup'])) ?? inert.createElement('span'),
  }),
  renderText: ({ node }) => saidBy(String(node.attrs['markup'])).words,
})

/** The formula that is chosen in a text; null where none is. */
export const chosenFormula = ({ state: { selection } }: Editor): string | null =>
  selection instanceof NodeSelection && selection.node.type.name === 'formula'
    ? String(selection.node.attrs['markup'])
    : null
