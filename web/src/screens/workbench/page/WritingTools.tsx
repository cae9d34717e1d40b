import type { ChainedCommands, Editor } from '@tiptap/react'
import { newNote, newSpot } from '@wickerframe/core'

type Does = (chain: ChainedCommands) => ChainedCommands
interface Tool {
  words: string
  isOn?: (editor: Editor) => boolean
  does: Does
}

const tools: readonly Tool[] = [
  { words: 'bold', isOn: (on) => on.isActive('bold'), does: (chain) => chain.toggleBold() },
  { words: 'italic', isOn: (on) => on.isActive('italic'), does: (chain) => chain.toggleItalic() },
  {
    words: 'heading',
    isOn: (on) => on.isActive('heading', { level: 3 }),
    does: (chain) => chain.toggleHeading({ level: 3 }),
  },
  {
    words: 'subheading',
    isOn: (on) => on.isActive('heading', { level: 4 }),
    does: (chain) => chain.toggleHeading({ level: 4 }),
  },
  {
    words: 'list',
    isOn: (on) => on.isActive('bulletList'),
    does: (chain) => chain.toggleBulletList(),
  },
  {
    words: 'numbered list',
    isOn: (on) => on.isActive('orderedList'),
    does: (chain) => chain.toggleOrderedList(),
  },
]
/** What can be done where a table is edited. */
const tableTools: readonly Tool[] = [
  { words: 'header row', does: (chain) => chain.toggleHeaderRow() },
  { words: 'header column', does: (chain) => chain.toggleHeaderColumn() },
  { words: 'row below', does: (chain) => chain.addRowAfter() },
  { words: 'column after', does: (chain) => chain.addColumnAfter() },
  { words: 'remove row', does: (chain) => chain.deleteRow() },
  { words: 'remove column', does: (chain) => chain.deleteColumn() },
  { words: 'remove table', does: (chain) => chain.deleteTable() },
]
const newTable: Tool = {
  words: 'table',
  does: (chain) => chain.insertTable({ rows: 3, cols: 2, withHeaderRow: true }),
}

/** The tools of a text that is being written; a press leaves the cursor where it is. */
export const WritingTools = ({
  editor,
  label,
  onLink,
  onPicture,
  onFormula,
  onSpot,
  onReader,
}: {
  editor: Editor
  label: string
  /** Puts in a spot to fill in that says this, or a note; null where none may stand. */
  onSpot: ((says: string) => void) | null
  /** Puts in the first name of whoever reads; null where nobody is spoken to by name. */
  onReader: (() => void) | null
  onLink: () => void
  onPicture: () => void
  onFormula: () => void
}) => {
  const button = (words: string, isOn: boolean, onPress: () => void) => (
    <button
      key={words}
      type="button"
      aria-pressed={isOn}
      className={`min-h-[24px] min-w-[24px] px-1.5 py-0.5 text-[12.5px] ${isOn ? 'bg-ink text-sheet' : 'text-ink-2 underline underline-offset-2'}`}
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
    >
      {words}
    </button>
  )
  const does = ({ words, isOn, does }: Tool) =>
    button(words, isOn?.(editor) ?? false, () => does(editor.chain().focus()).run())
  const isLink = editor.isActive('link')
  return (
    <div
      className="flex flex-wrap gap-1 border border-line bg-band px-1"
      role="toolbar"
      aria-label={`Writing ${label}`}
    >
      {tools.map(does)}
      {button('link', isLink, () => (isLink ? editor.chain().focus().unsetLink().run() : onLink()))}
      {button('picture', false, onPicture)}
      {button('formula', editor.isActive('formula'), onFormula)}
      {onSpot && button('spot to fill in', false, () => onSpot(newSpot))}
      {onSpot && button('note in the sentence', false, () => onSpot(newNote))}
      {onReader && button('reader’s name', false, onReader)}
      {(editor.isActive('table') ? tableTools : [newTable]).map(does)}
    </div>
  )
}
