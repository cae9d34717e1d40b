import { Extension } from '@tiptap/react'
import { Plugin } from '@tiptap/pm/state'
import type { Node } from '@tiptap/pm/model'
import { Decoration, DecorationSet } from '@tiptap/pm/view'

const field = /\{[^{}]{1,200}\}/g

const marked = (doc: Node): DecorationSet => {
  const found: Decoration[] = []
  doc.descendants((node, at) => {
    for (const { index, 0: text } of node.text?.matchAll(field) ?? [])
      found.push(
        Decoration.inline(at + index, at + index + text.length, {
          class: 'font-mono text-[0.85em] text-tide',
        }),
      )
  })
  return DecorationSet.create(doc, found)
}

/** Fields of a naming format, `{week}`, stand out in a text that is written. */
export const FieldsInText = Extension.create({
  name: 'fieldsInText',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      state: {
        init: (_, { doc }) => marked(doc),
        apply: (transaction, before) => (transaction.docChanged ? marked(transaction.doc) : before),
      },
      props: {
        decorations(state) {
          return this.getState(state)
        },
      },
    }),
  ],
})
