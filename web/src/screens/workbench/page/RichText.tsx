import { Link } from '@tiptap/extension-link'
import { EditorContent, useEditor, type Editor } from '@tiptap/react'
import { StarterKit } from '@tiptap/starter-kit'
import { useEffect, useMemo, useRef, useState } from 'react'
import { imageData } from '@wickerframe/core'
import { HeadingOrder, headingLevels } from './headings.ts'
import { ImageForm } from './ImageForm.tsx'
import { ImageNode } from './imageNode.ts'
import { LinkForm } from './LinkForm.tsx'
import type { PageSources } from './pageSources.ts'

/** A link that may follow the name of the part it leads to. */
const FollowingLink = Link.extend({
  addAttributes() {
    return { ...this.parent?.(), 'data-follows': { default: null } }
  },
})

const settleMilliseconds = 700
/** What was written, without the empty line an editor keeps open at the end. */
const htmlOf = (editor: Editor): string => editor.getHTML().replace(/(?<=.)(?:<p><\/p>)+$/, '')

/**
 * Edits the HTML of a block: handed on when typing rests or the field is left. Text is pasted as plain text.
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
  const latest = useRef({ html, onDone })
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  useEffect(() => {
    latest.current = { html, onDone }
  })
  const extensions = useMemo(
    () => [
      StarterKit.configure({ heading: { levels: [...headingLevels] }, link: false }),
      FollowingLink.configure({
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
    ],
    // Which images there are when the editor opens is enough; it is not built anew while somebody types.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  )
  const handOn = (editor: Editor) => {
    if (timer.current) clearTimeout(timer.current)
    timer.current = null
    const now = htmlOf(editor)
    if (now !== latest.current.html) latest.current.onDone(now)
  }
  const editor = useEditor({
    // Made once this stands on the page: one that is made while drawing is destroyed when drawing takes longer than a moment.
    immediatelyRender: false,
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
        const text = event.clipboardData?.getData('text/plain')
        if (text === undefined || text === '') return false
        const { schema, tr } = view.state
        const paragraphs = text
          .split(/\r?\n\s*\r?\n/)
          .map((paragraph) =>
            schema.nodes['paragraph']?.create(
              null,
              paragraph.trim() === ''
                ? []
                : [schema.text(paragraph.replace(/\s*\r?\n\s*/g, ' ').trim())],
            ),
          )
          .filter((node) => node !== undefined)
        const [only] = paragraphs
        view.dispatch(
          paragraphs.length === 1 && only
            ? tr.insertText(only.textContent)
            : tr.replaceWith(tr.selection.from, tr.selection.to, paragraphs),
        )
        return true
      },
    },
    onFocus: () => setFocused(true),
    onUpdate: ({ editor: self }) => {
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
  }, [editor, html])
  const tool = (text: string, active: boolean, run: () => void) => (
    <button
      key={text}
      type="button"
      aria-pressed={active}
      className={`px-1.5 py-0.5 text-[12.5px] ${active ? 'bg-ink text-sheet' : 'text-ink-2 underline underline-offset-2'}`}
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
        </div>
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
