import { Link } from '@tiptap/extension-link'
import { EditorContent, useEditor, type ChainedCommands, type Editor } from '@tiptap/react'
import { StarterKit } from '@tiptap/starter-kit'
import { useEffect, useMemo, useRef, useState } from 'react'
import { imageData, readPasted, readPastedText, type Pasted } from '@wickerframe/core'
import { Button, plural } from '../../../controls/controls.tsx'
import { HeadingOrder, headingLevels } from './headings.ts'
import { ImageForm } from './ImageForm.tsx'
import { ImageNode } from './imageNode.ts'
import { LinkForm } from './LinkForm.tsx'
import type { PageSources } from './pageSources.ts'
import { scriptMarks } from './scriptMarks.ts'
import { tableNodes } from './tableNodes.ts'

/** A link that may follow the name of the part it leads to. */
const FollowingLink = Link.extend({
  addAttributes() {
    return { ...this.parent?.(), 'data-follows': { default: null } }
  },
})

const settleMilliseconds = 700
/** What was written, without the empty line an editor keeps open at the end. */
const htmlOf = (editor: Editor): string =>
  editor
    .getHTML()
    .replace(/(?<=.)(?:<p><\/p>)+$/, '')
    .replace(/(<t[dh][^>]*>)<p>((?:(?!<\/?p>).)*)<\/p>(?=<\/t[dh]>)/g, '$1$2')

/** What can be done where a table is edited. */
const tableTools: readonly (readonly [
  text: string,
  does: (chain: ChainedCommands) => ChainedCommands,
])[] = [
  ['header row', (chain) => chain.toggleHeaderRow()],
  ['header column', (chain) => chain.toggleHeaderColumn()],
  ['row below', (chain) => chain.addRowAfter()],
  ['column after', (chain) => chain.addColumnAfter()],
  ['remove row', (chain) => chain.deleteRow()],
  ['remove column', (chain) => chain.deleteColumn()],
  ['remove table', (chain) => chain.deleteTable()],
]

/** What is kept of what was copied; null: it is our own, and put in as it is. */
const pastedFrom = (clipboard: DataTransfer | null): Pasted | null => {
  const html = clipboard?.getData('text/html') ?? ''
  if (html.includes('data-pm-slice')) return null
  if (html !== '') return readPasted(html)
  const text = clipboard?.getData('text/plain') ?? ''
  if (text !== '') return readPastedText(text)
  const images = [...(clipboard?.files ?? [])].length
  return images === 0 ? null : { html: '', left: [plural(images, 'file')] }
}

/**
 * Edits the HTML of a block: handed on when typing rests or the field is left. Of what is pasted the structure is kept, and
 * one line says what was left out.
 * @param headingBefore level of the last heading above it on its page; a heading here is at most one deeper
 */
export const RichText = ({
  html,
  label,
  sources,
  headingBefore = 2,
  disabled = false,
  onDone,
}: {
  html: string
  label: string
  sources: PageSources
  headingBefore?: number
  disabled?: boolean
  onDone: (html: string) => void
}) => {
  const [form, setForm] = useState<'link' | 'image' | null>(null)
  const [focused, setFocused] = useState(false)
  const [left, setLeft] = useState<readonly string[]>([])
  const latest = useRef({ html, onDone })
  /** What it holds as the editor writes it: only what is other than that was edited. */
  const shown = useRef<string | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  useEffect(() => {
    latest.current = { html, onDone }
  })
  const extensions = useMemo(
    () => [
      StarterKit.configure({ heading: { levels: [...headingLevels] }, link: false }),
      FollowingLink.configure({
        // A link opens where its reader is, and says nothing of windows.
        HTMLAttributes: { target: null, rel: null },
        openOnClick: false,
        autolink: false,
        protocols: ['part', 'mailto'],
        isAllowedUri: (url, { defaultValidate }) => url.startsWith('part:') || defaultValidate(url),
      }),
      ImageNode.configure({
        sourceOf: (source) => {
          const asset = sources.assets.find((asset) => source === `asset:${asset.fileName}`)
          return asset ? imageData(asset) : null
        },
      }),
      HeadingOrder.configure({ before: headingBefore }),
      ...tableNodes,
      ...scriptMarks,
    ],
    // Which images there are when the editor opens is enough; it is not built anew while somebody types.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  )
  const handOn = (editor: Editor) => {
    if (timer.current) clearTimeout(timer.current)
    timer.current = null
    const now = htmlOf(editor)
    if (now === (shown.current ?? latest.current.html)) return
    shown.current = now
    latest.current.onDone(now)
  }
  const editor = useEditor({
    // Made once this stands on the page: one that is made while drawing is destroyed when drawing takes longer than a moment.
    immediatelyRender: false,
    // Tools show what stands where the cursor is.
    shouldRerenderOnTransaction: true,
    extensions,
    content: html,
    editable: !disabled,
    editorProps: {
      attributes: {
        class: 'prose-field',
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
      },
      handlePaste: (view, event) => {
        const pasted = pastedFrom(event.clipboardData)
        if (!pasted) return false
        view.pasteHTML(pasted.html)
        setLeft(pasted.left)
        return true
      },
    },
    onCreate: ({ editor: self }) => {
      shown.current = htmlOf(self)
    },
    onFocus: () => setFocused(true),
    onUpdate: ({ editor: self, transaction }) => {
      // What undoes the paste would undo something else from now on.
      if (transaction.getMeta('paste') !== true) setLeft([])
      if (timer.current) clearTimeout(timer.current)
      timer.current = setTimeout(() => handOn(self), settleMilliseconds)
    },
    onBlur: ({ editor: self }) => handOn(self),
    onDestroy: () => {
      if (timer.current) clearTimeout(timer.current)
    },
  })
  // What was typed a moment before this goes from the page is kept: the editor is destroyed a moment after.
  useEffect(
    () => () => {
      if (editor && timer.current) handOn(editor)
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [editor],
  )
  useEffect(() => {
    if (editor && !editor.isDestroyed && !editor.isFocused && htmlOf(editor) !== html)
      editor.commands.setContent(html, { emitUpdate: false })
    if (editor && !editor.isDestroyed && !editor.isFocused) shown.current = htmlOf(editor)
  }, [editor, html])
  const tool = (text: string, active: boolean, run: () => void) => (
    <button
      key={text}
      type="button"
      aria-pressed={active}
      className={`min-h-[24px] min-w-[24px] px-1.5 py-0.5 text-[12.5px] ${active ? 'bg-ink text-sheet' : 'text-ink-2 underline underline-offset-2'}`}
      onMouseDown={(event) => event.preventDefault()}
      onClick={run}
    >
      {text}
    </button>
  )
  if (!editor) return <div className="prose-field" />
  const chain = () => editor.chain().focus()
  return (
    <div>
      <EditorContent editor={editor} />
      {focused && !disabled && (
        <div
          className="flex flex-wrap gap-1 border border-t-0 border-line bg-band px-1"
          role="toolbar"
          aria-label={`Writing ${label}`}
        >
          {tool('bold', editor.isActive('bold'), () => chain().toggleBold().run())}
          {tool('italic', editor.isActive('italic'), () => chain().toggleItalic().run())}
          {tool('heading', editor.isActive('heading', { level: 3 }), () =>
            chain().toggleHeading({ level: 3 }).run(),
          )}
          {tool('subheading', editor.isActive('heading', { level: 4 }), () =>
            chain().toggleHeading({ level: 4 }).run(),
          )}
          {tool('list', editor.isActive('bulletList'), () => chain().toggleBulletList().run())}
          {tool('numbered list', editor.isActive('orderedList'), () =>
            chain().toggleOrderedList().run(),
          )}
          {tool('link', editor.isActive('link'), () =>
            editor.isActive('link') ? chain().unsetLink().run() : setForm('link'),
          )}
          {tool('image', false, () => setForm('image'))}
          {editor.isActive('table')
            ? tableTools.map(([text, does]) => tool(text, false, () => does(chain()).run()))
            : tool('table', false, () =>
                chain().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run(),
              )}
        </div>
      )}
      {left.length > 0 && !disabled && (
        <p className="border border-t-0 border-line bg-straw-soft px-2 py-0.5" role="status">
          Pasted without {left.join(', ')}.{' '}
          <Button
            shape="word"
            onClick={() => {
              chain().undo().run()
              setLeft([])
            }}
          >
            undo
          </Button>{' '}
          <Button shape="word" onClick={() => setLeft([])}>
            fine
          </Button>
        </p>
      )}
      {form === 'link' && (
        <LinkForm editor={editor} sources={sources} onClose={() => setForm(null)} />
      )}
      {form === 'image' && (
        <ImageForm editor={editor} sources={sources} onClose={() => setForm(null)} />
      )}
    </div>
  )
}
