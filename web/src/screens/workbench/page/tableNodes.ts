import { Extension, Node, type AnyExtension } from '@tiptap/react'
import { Plugin } from '@tiptap/pm/state'
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table'

const span = (name: 'colspan' | 'rowspan') => ({
  default: 1,
  parseHTML: (element: HTMLElement) => Number(element.getAttribute(name)) || 1,
  renderHTML: (attributes: Record<string, unknown>) =>
    attributes[name] === 1 ? {} : { [name]: attributes[name] },
})
const spans = {
  colspan: span('colspan'),
  rowspan: span('rowspan'),
  colwidth: { default: null, rendered: false },
}

/** A table as it is written: a caption where it has one, rows, and no widths. */
const WrittenTable = Table.extend({
  addAttributes: () => ({
    caption: {
      default: null,
      parseHTML: (element: HTMLElement) =>
        element.querySelector(':scope > caption')?.textContent?.trim() || null,
      rendered: false,
    },
  }),
  renderHTML: ({ node }) => {
    const caption: unknown = node.attrs['caption']
    return typeof caption === 'string'
      ? ['table', ['caption', caption], ['tbody', 0]]
      : ['table', ['tbody', 0]]
  },
})
const WrittenCell = TableCell.extend({ addAttributes: () => spans })
const WrittenHeader = TableHeader.extend({
  addAttributes: () => ({ ...spans, scope: { default: null } }),
})
/** It is an attribute of its table, and nothing that stands in it. */
const Caption = Node.create({
  name: 'caption',
  parseHTML: () => [{ tag: 'caption', ignore: true }],
})

/** Says of each heading of a table whether it is that of a column or of a row, whatever brought it about. */
const HeaderScopes = Extension.create({
  name: 'headerScopes',
  addProseMirrorPlugins: () => [
    new Plugin({
      appendTransaction: (transactions, _, state) => {
        if (!transactions.some((transaction) => transaction.docChanged)) return null
        const set = state.tr
        state.doc.descendants((node, at) => {
          if (node.type.name !== 'tableRow') return
          let heads = 0
          node.forEach((cell) => (heads += cell.type.name === 'tableHeader' ? 1 : 0))
          const scope = heads === node.childCount ? 'col' : 'row'
          node.forEach((cell, offset) => {
            if (cell.type.name === 'tableHeader' && cell.attrs['scope'] !== scope)
              set.setNodeMarkup(at + 1 + offset, undefined, { ...cell.attrs, scope })
          })
        })
        return set.docChanged ? set : null
      },
    }),
  ],
})

export const tableNodes: readonly AnyExtension[] = [
  WrittenTable.configure({ resizable: false, View: null }),
  TableRow,
  WrittenCell,
  WrittenHeader,
  Caption,
  HeaderScopes,
]
