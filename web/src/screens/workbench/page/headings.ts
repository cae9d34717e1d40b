import { Extension } from '@tiptap/react'
import { Plugin } from '@tiptap/pm/state'

/** Levels of headings inside a block; level 1 is the page's name, level 2 a title block. */
export const headingLevels = [3, 4] as const

/** Headings that skip a level are set to the level that may stand there, whatever brought them about. */
export const HeadingOrder = Extension.create<{ before: number }>({
  name: 'headingOrder',
  addOptions: () => ({ before: 2 }),
  addProseMirrorPlugins() {
    const { before } = this.options
    return [
      new Plugin({
        appendTransaction: (transactions, _, state) => {
          if (!transactions.some((transaction) => transaction.docChanged)) return null
          const set = state.tr
          let level = Math.max(2, before)
          state.doc.forEach((node, offset) => {
            if (node.type.name !== 'heading') return
            const own = Number(node.attrs['level'])
            const allowed = Math.min(own, level + 1)
            if (allowed !== own)
              set.setNodeMarkup(offset, undefined, { ...node.attrs, level: allowed })
            level = allowed
          })
          return set.docChanged ? set : null
        },
      }),
    ]
  },
})
