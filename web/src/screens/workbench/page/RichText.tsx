import { Link } from '@tiptap/extension-link'
import { createNodeFromContent, EditorContent, useEditor, type Editor } from '@tiptap/react'
import { Selection, TextSelection } from '@tiptap/pm/state'
import { DOMSerializer, Fragment, type Schema } from '@tiptap/pm/model'
import type { EditorProps, EditorView } from '@tiptap/pm/view'
import { StarterKit } from '@tiptap/starter-kit'
import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent as KeyPress,
} from 'react'
import { imageData, newReader, type Asset } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { readImageFile } from '../../../controls/imageFile.ts'
import { FieldsInText } from './fieldsInText.ts'
import { FormulaForm } from './FormulaForm.tsx'
import { FormulaNode } from './formulaNode.ts'
import { HeadingOrder, headingLevels } from './headings.ts'
import { ImageNode } from './imageNode.ts'
import { LinkForm } from './LinkForm.tsx'
import { imageSource, type PageSources } from './pageSources.ts'
import {
  pastedIn,
  picturesAmong,
  waitingSource,
  withoutWaiting,
  type WaitingPicture,
} from './pastedIn.ts'
import { PictureForm, type DescribedPicture, type NewPicture } from './PictureForm.tsx'
import { scriptMarks } from './scriptMarks.ts'
import { tableNodes } from './tableNodes.ts'
import { WritingTools } from './WritingTools.tsx'

/** A link that may follow the name of the part it leads to. */
const FollowingLink = Link.extend({
  addAttributes() {
    return { ...this.parent?.(), 'data-follows': { default: null } }
  },
})

const settleMilliseconds = 700
/** What was written, without the empty line an editor keeps open at the end, and without pictures that wait to be described. */
const written = (html: string): string =>
  withoutWaiting(html)
    .replace(/(?<=.)(?:<p><\/p>)+$/, '')
    .replace(/(<t[dh][^>]*>)<p>((?:(?!<\/?p>).)*)<\/p>(?=<\/t[dh]>)/g, '$1$2')
/** A page that loads nothing: images are named while text is written as HTML, not fetched. */
const inert = document.implementation.createHTMLDocument()
const htmlOfFragment = (fragment: Fragment, schema: Schema): string => {
  const into = inert.createElement('div')
  DOMSerializer.fromSchema(schema).serializeFragment(fragment, { document: inert }, into)
  return written(into.innerHTML)
}
const htmlOf = ({ state: { doc, schema } }: Editor): string => htmlOfFragment(doc.content, schema)

/** Where the cursor stands when a text opens: at an end, where somebody pressed, or after some HTML that it begins with. */
export type Begin = 'all' | 'start' | 'end' | { x: number; y: number } | { after: string }

const begun = (editor: Editor, begin: Begin): void => {
  if (typeof begin === 'string') {
    editor.commands.focus(begin)
    return
  }
  if ('after' in begin) {
    const before = createNodeFromContent(begin.after, editor.schema)
    const size = before instanceof Fragment ? before.size : before.nodeSize
    const seam = editor.state.doc.resolve(Math.min(size, editor.state.doc.content.size))
    editor.commands.focus(Selection.near(seam, -1).from)
    return
  }
  const at = editor.view.posAtCoords({ left: begin.x, top: begin.y })
  editor.commands.focus(at?.pos ?? 'end')
}

/** The cursor stands where the page shows it: keys that come fast are not read yet when the next one is pressed. */
const readCursor = (view: EditorView): void => {
  const { anchorNode, anchorOffset, focusNode, focusOffset } = document.getSelection() ?? {}
  const { selection, doc, tr } = view.state
  if (!anchorNode || !focusNode || !view.dom.contains(anchorNode)) return
  if (!(selection instanceof TextSelection)) return
  const shown = TextSelection.between(
    doc.resolve(view.posAtDOM(anchorNode, anchorOffset ?? 0)),
    doc.resolve(view.posAtDOM(focusNode, focusOffset ?? 0)),
  )
  if (!shown.eq(selection)) view.dispatch(tr.setSelection(shown))
}

/** Whether nothing to write in lies beyond the line of the cursor, in a direction. */
const isOutermost = (view: EditorView, direction: 1 | -1): boolean => {
  const { selection, doc } = view.state
  if (!selection.empty || !view.endOfTextblock(direction === 1 ? 'down' : 'up')) return false
  const { $head } = selection
  const edge = direction === 1 ? $head.after($head.depth || 1) : $head.before($head.depth || 1)
  return Selection.findFrom(doc.resolve(edge), direction, true) === null
}

/** What a text does where it stands among others on a page. */
export interface AmongOthers {
  begin: Begin
  /** The cursor goes out of it, or Escape is pressed. */
  onLeave: (to: 'above' | 'below' | 'frame') => void
  /** It becomes two. */
  onSplit: (halves: readonly [first: string, second: string]) => void
  /** Backspace at its start: it and the one above become one. */
  onJoin: () => void
}

/** What is chosen is put between two marks; where nothing is, words that are to be written over, and they are chosen. */
const putBetween = (
  editor: Editor,
  [open, close]: readonly [open: string, close: string],
  says: string,
): void => {
  const { from, to } = editor.state.selection
  const chosen = editor.state.doc.textBetween(from, to, ' ').replace(/[[\]{}]/g, '')
  const words = chosen.trim() || says
  const first = from + open.length
  editor
    .chain()
    .focus()
    .insertContent({ type: 'text', text: `${open}${words}${close}` })
    .setTextSelection({ from: first, to: first + words.length })
    .run()
}
const spotMarks = ['[[', ']]'] as const
/** The first name of whoever reads, and what stands where a platform shows none. */
const readerMarks = ['{reader, ', '}'] as const

/**
 * Edits the HTML of a block: handed on when typing rests or the field is left. Of what is pasted the structure is kept, and
 * one line says what was left out; of pictures it is asked what they show.
 * @param headingBefore level of the last heading above it on its page; a heading here is at most one deeper
 */
export const RichText = ({
  html,
  label,
  sources,
  headingBefore = 2,
  disabled = false,
  spots = false,
  onPage = false,
  begins,
  among,
  onDone,
}: {
  html: string
  label: string
  sources: PageSources
  headingBefore?: number
  disabled?: boolean
  /** Whether the instructor may be asked for something within a sentence: `[[room and hours]]`. */
  spots?: boolean
  /** Whether it stands on a page, and may speak to whoever reads it by name. */
  onPage?: boolean
  /** Given, the cursor stands there once it is open. */
  begins?: Begin
  /** Given, it looks as on its page, and is left for what stands beside it. */
  among?: AmongOthers
  onDone: (html: string) => void
}) => {
  const [form, setForm] = useState<'link' | 'picture' | 'formula' | null>(null)
  const [focused, setFocused] = useState(false)
  const [left, setLeft] = useState<readonly string[]>([])
  const [waiting, setWaiting] = useState<readonly (NewPicture & WaitingPicture)[]>([])
  const latest = useRef({ html, onDone, sources, among, waiting })
  /** What it holds as the editor writes it: only what is other than that was edited. */
  const shown = useRef<string | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  /** Images put in here, which the sources know of a moment later. */
  const put = useRef<Asset[]>([])
  useEffect(() => {
    latest.current = { html, onDone, sources, among, waiting }
  })
  const extensions = useMemo(
    () => [
      StarterKit.configure({ heading: { levels: [...headingLevels] }, link: false }),
      FollowingLink.configure({
        // A link opens where its reader is, and says nothing of windows.
        HTMLAttributes: { target: null, rel: null },
        openOnClick: false,
        autolink: false,
        protocols: ['part', 'handout', 'mailto'],
        isAllowedUri: (url, { defaultValidate }) =>
          /^(?:part|handout):/.test(url) || defaultValidate(url),
      }),
      ImageNode.configure({
        sourceOf: (source) => {
          const { assets } = latest.current.sources
          const asset = imageSource([...assets, ...put.current], source)
          return asset ? imageData(asset) : null
        },
      }),
      HeadingOrder.configure({ before: headingBefore }),
      FieldsInText,
      FormulaNode,
      ...tableNodes,
      ...scriptMarks,
    ],
    // It is not built anew while somebody types.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  )
  const settled = () => {
    if (timer.current) clearTimeout(timer.current)
    timer.current = null
  }
  const handOn = (editor: Editor) => {
    settled()
    const now = htmlOf(editor)
    if (now === (shown.current ?? latest.current.html)) return
    shown.current = now
    latest.current.onDone(now)
  }
  /** Where it stands in the text; null: it was taken out meanwhile. */
  const placeOf = (editor: Editor, picture: WaitingPicture): number | null => {
    let place: number | null = null
    editor.state.doc.descendants((node, at) => {
      if (node.attrs['src'] === waitingSource(picture)) place = at
    })
    return place
  }
  const takeOut = (editor: Editor, picture: WaitingPicture) => {
    const at = placeOf(editor, picture)
    if (at !== null)
      editor
        .chain()
        .setMeta('paste', true)
        .deleteRange({ from: at, to: at + 1 })
        .run()
  }
  const ask = async (editor: Editor, pictures: readonly WaitingPicture[]) => {
    for (const picture of pictures) {
      const content = await readImageFile(picture.file)
      if (editor.isDestroyed) return
      if (typeof content === 'string') {
        takeOut(editor, picture)
        setLeft((before) => [...before, `a picture: ${content.replace(/\.$/, '')}`])
      } else setWaiting((before) => [...before, { ...picture, content }])
    }
  }
  const split = (editor: Editor): boolean => {
    const { onSplit } = latest.current.among ?? {}
    if (!onSplit) return false
    const { doc, selection, schema } = editor.state
    const half = (from: number, to?: number) => htmlOfFragment(doc.cut(from, to).content, schema)
    const halves = [half(0, selection.from), half(selection.to)] as const
    if (halves.some((each) => each.replace(/<(?!img)[^>]*>/g, '').trim() === '')) return true
    settled()
    shown.current = halves[0]
    editor.commands.setContent(halves[0], { emitUpdate: false })
    onSplit(halves)
    return true
  }
  const pressed = (editor: Editor, view: EditorView, event: KeyboardEvent): boolean => {
    const { among: others } = latest.current
    if (!others) return false
    const leave = (to: Parameters<AmongOthers['onLeave']>[0]) => {
      handOn(editor)
      others.onLeave(to)
      return true
    }
    if (event.key === 'Escape') return leave('frame')
    if (/^(?:Enter|Backspace|ArrowUp|ArrowDown)$/.test(event.key)) readCursor(view)
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) return split(editor)
    if (event.shiftKey || event.altKey || event.ctrlKey || event.metaKey) return false
    if (event.key === 'ArrowUp' && isOutermost(view, -1)) return leave('above')
    if (event.key === 'ArrowDown' && isOutermost(view, 1)) return leave('below')
    const { selection, doc } = view.state
    if (
      event.key === 'Backspace' &&
      selection.empty &&
      selection.from === Selection.atStart(doc).from
    ) {
      handOn(editor)
      others.onJoin()
      return true
    }
    return false
  }
  const self = useRef<Editor | null>(null)
  // The same ones all the time: what is given anew at each drawing puts the cursor back to where it was when keys come fast.
  const [content] = useState(html)
  const editorProps = useMemo<EditorProps>(
    () => ({
      attributes: {
        class: among ? 'page-text' : 'prose-field',
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
      },
      handleKeyDown: (view, event) => self.current !== null && pressed(self.current, view, event),
      handleDoubleClickOn: (_view, _at, node) => {
        if (node.type !== node.type.schema.nodes['formula']) return false
        setForm('formula')
        return true
      },
      handlePaste: (view, event) => {
        if (!event.clipboardData) return false
        const pasted = pastedIn(event.clipboardData, latest.current.sources.onAsset !== undefined)
        if (!pasted) return false
        view.pasteHTML(pasted.html)
        setLeft(pasted.left)
        if (self.current) void ask(self.current, pasted.pictures)
        return true
      },
      handleDrop: (view, event, _, moved) => {
        const files = [...(event.dataTransfer?.files ?? [])]
        if (moved || files.length === 0) return false
        const dropped = picturesAmong(latest.current.sources.onAsset ? files : [])
        // Documents are the page's to take, where this text stands on one.
        if (dropped.pictures.length === 0 && latest.current.among) return false
        event.preventDefault()
        const at = view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos ?? 0
        self.current?.commands.insertContentAt(
          at,
          dropped.pictures.map((picture) => ({
            type: 'image',
            attrs: { src: waitingSource(picture) },
          })),
        )
        setLeft(dropped.left)
        if (self.current) void ask(self.current, dropped.pictures)
        return true
      },
    }),
    // Only what is latest is asked in them.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  )
  /** What is typed before the editor has the cursor, on a slow machine; null: it has it. */
  const early = useRef<string | null>('')
  /** Where an arrow led that was pressed before that. */
  const earlyLeave = useRef<'above' | 'below' | null>(null)
  const place = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    if (among ?? begins) place.current?.focus()
    // Once, where it is gone into.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  const takeEarly = (event: KeyPress) => {
    if (early.current === null || event.ctrlKey || event.metaKey || event.altKey) return
    const begin = among?.begin
    if (event.key === 'ArrowDown' && begin === 'end') earlyLeave.current = 'below'
    else if (event.key === 'ArrowUp' && begin === 'start') earlyLeave.current = 'above'
    else if (event.key.length === 1) early.current += event.key
    else return
    event.preventDefault()
  }
  const editor = useEditor({
    // Made once this stands on the page: one that is made while drawing is destroyed when drawing takes longer than a moment.
    immediatelyRender: false,
    // Tools show what stands where the cursor is.
    shouldRerenderOnTransaction: true,
    extensions,
    content,
    editable: !disabled,
    editorProps,
    onCreate: ({ editor: made }) => {
      self.current = made
      shown.current = htmlOf(made)
      const begin = among?.begin ?? begins
      if (begin) begun(made, begin)
    },
    onFocus: ({ editor: made }) => {
      setFocused(true)
      const text = early.current
      early.current = null
      if (text) made.view.dispatch(made.state.tr.insertText(text))
      const leave = earlyLeave.current
      earlyLeave.current = null
      if (leave === null) return
      handOn(made)
      latest.current.among?.onLeave(leave)
    },
    onUpdate: ({ editor: made, transaction }) => {
      // What undoes the paste would undo something else from now on.
      if (transaction.getMeta('paste') !== true) setLeft([])
      // Of a picture that was taken out again, or undone, nothing is asked.
      setWaiting((before) => before.filter((picture) => placeOf(made, picture) !== null))
      if (timer.current) clearTimeout(timer.current)
      timer.current = setTimeout(() => handOn(made), settleMilliseconds)
    },
    onBlur: ({ editor: made }) => handOn(made),
    onDestroy: settled,
  })
  // What was typed a moment before this goes from the page is kept: the editor is destroyed a moment after.
  useEffect(
    () => () => {
      if (editor && timer.current) handOn(editor)
    },
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [editor],
  )
  useEffect(
    () => () => {
      const { waiting: undescribed, sources: of } = latest.current
      if (undescribed.length > 0) of.onUndescribed?.(undescribed.length)
    },
    [],
  )
  useEffect(() => {
    if (editor && !editor.isDestroyed && !editor.isFocused && htmlOf(editor) !== html)
      editor.commands.setContent(html, { emitUpdate: false })
    if (editor && !editor.isDestroyed && !editor.isFocused) shown.current = htmlOf(editor)
  }, [editor, html])
  const catching = {
    ref: place,
    className: 'outline-none',
    ...((among ?? begins) ? { tabIndex: -1, onKeyDown: takeEarly } : {}),
  }
  if (!editor)
    return (
      <div {...catching}>
        <div className={among ? 'page-text' : 'prose-field'} />
      </div>
    )
  const [asked] = waiting
  const answered = (picture: DescribedPicture | null) => {
    if (!asked) return
    setWaiting((before) => before.filter((other) => other !== asked))
    if (picture) put.current.push(picture.asset)
    const at = placeOf(editor, asked)
    const attrs = picture && {
      src: `asset:${picture.asset.fileName}`,
      alt: picture.alternativeText,
    }
    if (attrs === null) takeOut(editor, asked)
    else if (at !== null)
      editor
        .chain()
        .setMeta('paste', true)
        .setNodeSelection(at)
        .updateAttributes('image', attrs)
        .run()
    // Somebody else edited the text meanwhile: it stands at its end.
    else editor.commands.insertContentAt(editor.state.doc.content.size, { type: 'image', attrs })
    handOn(editor)
    if (waiting.length === 1) editor.commands.focus()
  }
  return (
    <div {...catching}>
      <EditorContent editor={editor} />
      {focused && !disabled && (
        <WritingTools
          editor={editor}
          label={label}
          onLink={() => setForm('link')}
          onPicture={() => setForm('picture')}
          onFormula={() => setForm('formula')}
          onSpot={spots ? (says) => putBetween(editor, spotMarks, says) : null}
          onReader={onPage ? () => putBetween(editor, readerMarks, newReader) : null}
        />
      )}
      {left.length > 0 && !disabled && (
        <p className="border border-t-0 border-line bg-straw-soft px-2 py-0.5" role="status">
          Pasted without {left.join(', ')}.{' '}
          <Button
            shape="word"
            onClick={() => {
              editor.chain().focus().undo().run()
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
      {form === 'formula' && <FormulaForm editor={editor} onClose={() => setForm(null)} />}
      {form === 'picture' && (
        <PictureForm
          sources={sources}
          onPut={({ asset, alternativeText }) => {
            put.current.push(asset)
            editor
              .chain()
              .focus()
              .insertContent({
                type: 'image',
                attrs: { src: `asset:${asset.fileName}`, alt: alternativeText },
              })
              .run()
            setForm(null)
          }}
          onClose={() => setForm(null)}
        />
      )}
      {asked && form === null && !disabled && (
        <PictureForm
          key={asked.id}
          sources={sources}
          came={asked}
          more={waiting.length - 1}
          onPut={answered}
          onClose={() => answered(null)}
        />
      )}
    </div>
  )
}
