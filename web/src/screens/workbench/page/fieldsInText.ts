import { Extension } from '@tiptap/react'
import { Plugin } from '@tiptap/pm/state'
import type { Node } from '@tiptap/pm/model'
import { Decoration, DecorationSet } from '@tiptap/pm/view'

/** A field, `{week}`, or a spot that the instructor fills in, `[[room and hours]]`. */
const marks = /\{[^{}]{1,200}\}|\[\[[^[\]<>]{1,200}\]\]/

/** How they look where a text is written. */
const looks = { field: 'font-mono text-[0.85em] text-tide', spot: 'page-spot' } as const

/** A text in stretches, each with how it looks; null: as the rest. */
export const markedText = (text: string): { text: string; look: string | null }[] =>
  text
    .split(new RegExp(`(${marks.source})`))
    .map((stretch, i) => ({
      text: stretch,
      look: i % 2 === 0 ? null : stretch.startsWith('{') ? looks.field : looks.spot,
    }))
    .filter((stretch) => stretch.text !== '')

const marked = (doc: Node): DecorationSet => {
  const found: Decoration[] = []
  doc.descendants((node, at) => {
    let from = at
    for (const { text, look } of markedText(node.text ?? '')) {
      if (look !== null) found.push(Decoration.inline(from, from + text.length, { class: look }))
      from += text.length
    }
  })
  return DecorationSet.create(doc, found)
}

/** Fields of a naming format, `{week}`, and spots to fill in stand out in a text that is written. */
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
