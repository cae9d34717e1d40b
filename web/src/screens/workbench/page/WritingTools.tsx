import type { ChainedCommands, Editor } from '@tiptap/react'

type Does = (chain: ChainedCommands) => ChainedCommands
interface Tool {
  text: string
  isOn?: (editor: Editor) => boolean
  does: Does
}

const tools: readonly Tool[] = [
  { text: 'bold', isOn: (on) => on.isActive('bold'), does: (chain) => chain.toggleBold() },
  { text: 'italic', isOn: (on) => on.isActive('italic'), does: (chain) => chain.toggleItalic() },
  {
    text: 'heading',
    isOn: (on) => on.isActive('heading', { level: 3 }),
    does: (chain) => chain.toggleHeading({ level: 3 }),
  },
  {
    text: 'subheading',
    isOn: (on) => on.isActive('heading', { level: 4 }),
    does: (chain) => chain.toggleHeading({ level: 4 }),
  },
  {
    text: 'list',
    isOn: (on) => on.isActive('bulletList'),
    does: (chain) => chain.toggleBulletList(),
  },
  {
    text: 'numbered list',
    isOn: (on) => on.isActive('orderedList'),
    does: (chain) => chain.toggleOrderedList(),
  },
]
/** What can be done where a table is edited. */
const tableTools: readonly Tool[] = [
  { text: 'header row', does: (chain) => chain.toggleHeaderRow() },
  { text: 'header column', does: (chain) => chain.toggleHeaderColumn() },
  { text: 'row below', does: (chain) => chain.addRowAfter() },
  { text: 'column after', does: (chain) => chain.addColumnAfter() },
  { text: 'remove row', does: (chain) => chain.deleteRow() },
  { text: 'remove column', does: (chain) => chain.deleteColumn() },
  { text: 'remove table', does: (chain) => chain.deleteTable() },
]
const newTable: Tool = {
  text: 'table',
  does: (chain) => chain.insertTable({ rows: 3, cols: 2, withHeaderRow: true }),
}

/** The tools of a text that is being written; a press leaves the cursor where it is. */
export const WritingTools = ({
  editor,
  label,
  onLink,
  onPicture,
}: {
  editor: Editor
  label: string
  onLink: () => void
  onPicture: () => void
}) => {
  const button = (text: string, isOn: boolean, onPress: () => void) => (
    <button
      key={text}
      type="button"
      aria-pressed={isOn}
      className={`min-h-[24px] min-w-[24px] px-1.5 py-0.5 text-[12.5px] ${isOn ? 'bg-ink text-sheet' : 'text-ink-2 underline underline-offset-2'}`}
      onMouseDown={(event) => event.preventDefault()}
      onClick={onPress}
    >
      {text}
    </button>
  )
  const does = ({ text, isOn, does }: Tool) =>
    button(text, isOn?.(editor) ?? false, () => does(editor.chain().focus()).run())
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
      {(editor.isActive('table') ? tableTools : [newTable]).map(does)}
    </div>
  )
}
