import { Link } from '@tiptap/extension-link'
import { EditorContent, useEditor, type Editor } from '@tiptap/react'
import { StarterKit } from '@tiptap/starter-kit'
import { useEffect, useMemo, useRef, useState } from 'react'
import { imageData, type Asset } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import { HeadingOrder, headingLevels } from './headings.ts'
import { ImageNode } from './imageNode.ts'

/** What a page can link to and show. */
export interface PageSources {
  parts: readonly { key: string; name: string }[]
  assets: readonly Asset[]
}

/** A link that may follow the name of the part it leads to. */
const FollowingLink = Link.extend({
  addAttributes() {
    return { ...this.parent?.(), 'data-follows': { default: null } }
  },
})

const settleMilliseconds = 700
/** What was written, without the empty line an editor keeps open at the end. */
const htmlOf = (editor: Editor): string => editor.getHTML().replace(/(?<=.)(?:<p><\/p>)+$/, '')

const PartLinkForm = ({
  editor,
  sources,
  onClose,
}: {
  editor: Editor
  sources: PageSources
  onClose: () => void
}) => {
  const [to, setTo] = useState(sources.parts[0]?.key ?? '')
  const [follows, setFollows] = useState(true)
  const [address, setAddress] = useState('')
  const chosen = sources.parts.find((part) => part.key === to)
  const selected = editor.state.selection.empty
    ? ''
    : editor.state.doc.textBetween(editor.state.selection.from, editor.state.selection.to)
  const put = () => {
    const outside = address.trim()
    const text =
      selected !== '' && !follows
        ? selected
        : outside !== ''
          ? selected || outside
          : (chosen?.name ?? to)
    const attrs =
      outside !== ''
        ? { href: outside }
        : { href: `part:${to}`, ...(follows ? { 'data-follows': 'name' } : {}) }
    editor
      .chain()
      .focus()
      .insertContent({ type: 'text', text, marks: [{ type: 'link', attrs }] })
      .run()
    onClose()
  }
  return (
    <div className="flex flex-wrap items-end gap-3 border border-line bg-band p-2">
      <label className="flex flex-col text-ink-2">
        Leads to
        <select
          className="max-w-56 border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={to}
          disabled={address !== ''}
          onChange={(event) => setTo(event.target.value)}
        >
          {sources.parts.map((part) => (
            <option key={part.key} value={part.key}>
              {part.name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col text-ink-2">
        or an address
        <input
          className="w-44 border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          placeholder="https://"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
      </label>
      {address === '' && (
        <Tick
          label="shows the part’s name, and follows it"
          checked={follows}
          onChange={setFollows}
        />
      )}
      <Button
        disabled={address === '' ? to === '' : !/^(https?:|mailto:)/.test(address.trim())}
        onClick={put}
      >
        Put link in
      </Button>
      <Button shape="word" onClick={onClose}>
        never mind
      </Button>
    </div>
  )
}

const ImageForm = ({
  editor,
  sources,
  onClose,
}: {
  editor: Editor
  sources: PageSources
  onClose: () => void
}) => {
  const [key, setKey] = useState(sources.assets[0]?.key ?? '')
  const asset = sources.assets.find((one) => one.key === key)
  const [alt, setAlt] = useState(asset?.alternativeText ?? '')
  const [decoration, setDecoration] = useState(false)
  if (!asset)
    return (
      <p className="border border-line bg-band p-2">
        The template has no image yet. Put one in from the library, on the shared pieces.
      </p>
    )
  return (
    <div className="flex flex-wrap items-end gap-3 border border-line bg-band p-2">
      <label className="flex flex-col text-ink-2">
        Image
        <select
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={key}
          onChange={(event) => {
            setKey(event.target.value)
            setAlt(
              sources.assets.find((one) => one.key === event.target.value)?.alternativeText ?? '',
            )
          }}
        >
          {sources.assets.map((one) => (
            <option key={one.key} value={one.key}>
              {one.fileName}
            </option>
          ))}
        </select>
      </label>
      <label className="flex grow flex-col text-ink-2">
        What it shows (alternative text)
        <input
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={alt}
          disabled={decoration}
          onChange={(event) => setAlt(event.target.value)}
        />
      </label>
      <Tick label="decoration only" checked={decoration} onChange={setDecoration} />
      <Button
        disabled={!decoration && alt.trim() === ''}
        onClick={() => {
          editor
            .chain()
            .focus()
            .insertContent({
              type: 'image',
              attrs: { src: `asset:${asset.fileName}`, alt: decoration ? '' : alt.trim() },
            })
            .run()
          onClose()
        }}
      >
        Put image in
      </Button>
      <Button shape="word" onClick={onClose}>
        never mind
      </Button>
    </div>
  )
}

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
          const asset = sources.assets.find((one) => source === `asset:${one.fileName}`)
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
          .map((one) =>
            schema.nodes['paragraph']?.create(
              null,
              one.trim() === '' ? [] : [schema.text(one.replace(/\s*\r?\n\s*/g, ' ').trim())],
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
  useEffect(() => {
    if (!editor.isFocused && htmlOf(editor) !== html)
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
        <PartLinkForm editor={editor} sources={sources} onClose={() => setForm(null)} />
      )}
      {form === 'image' && (
        <ImageForm editor={editor} sources={sources} onClose={() => setForm(null)} />
      )}
    </div>
  )
}
