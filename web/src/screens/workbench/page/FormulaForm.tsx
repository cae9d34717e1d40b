import { useEffect, useRef, useState } from 'react'
import type { Editor } from '@tiptap/react'
import { letIn } from '@wickerframe/core'
import { Button, Field } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import { chosenFormula, saidBy, withWords } from './formulaNode.ts'
import { PageHtml } from './PageHtml.tsx'

type Typeset = (tex: string) => string

/** What sets typed formulas; it comes when the first one is written. */
const useTypesetting = (): Typeset | null => {
  const [typeset, setTypeset] = useState<Typeset | null>(null)
  useEffect(() => {
    let isWanted = true
    void import('temml').then(({ default: temml }) => {
      if (isWanted)
        setTypeset(
          () => (tex: string) =>
            temml.renderToString(tex, { annotate: true, throwOnError: true, trust: false }),
        )
    })
    return () => {
      isWanted = false
    }
  }, [])
  return typeset
}

/** Pieces of a formula: what the button says, what is put in, and how far from its end the cursor goes. */
const pieces: readonly (readonly [words: string, tex: string, back: number])[] = [
  ['fraction', '\\frac{}{}', 3],
  ['root', '\\sqrt{}', 1],
  ['power', '^{}', 1],
  ['index', '_{}', 1],
  ['×', '\\times ', 0],
  ['±', '\\pm ', 0],
  ['≈', '\\approx ', 0],
  ['≤', '\\le ', 0],
  ['degrees', '^\\circ ', 0],
  ['Δ', '\\Delta ', 0],
  ['π', '\\pi ', 0],
  ['words', '\\text{}', 1],
]

const noSource = () => null

/** Writes a formula, or says anew how one is read aloud: typed in TeX, shown as it will look, put in with the words for it. */
export const FormulaForm = ({ editor, onClose }: { editor: Editor; onClose: () => void }) => {
  const [chosen] = useState(() => chosenFormula(editor))
  const before = chosen === null ? null : saidBy(chosen)
  /** Of a formula that was pasted without what was typed, only the words can be changed. */
  const isFixed = before !== null && before.tex === null
  const [tex, setTex] = useState(before?.tex ?? '')
  const [words, setWords] = useState(before?.words ?? '')
  const [isAlone, setAlone] = useState(before?.isAlone ?? false)
  const typeset = useTypesetting()
  const field = useRef<HTMLInputElement>(null)
  let markup = isFixed && chosen !== null ? chosen : ''
  let wrong: string | null = null
  if (!isFixed && typeset && tex.trim() !== '')
    try {
      markup = letIn(typeset(tex)).html
    } catch (cause) {
      wrong = cause instanceof Error ? cause.message.replace(/^.*?:\s*/, '') : String(cause)
    }
  const ready = markup !== '' && words.trim() !== ''
  const put = () => {
    if (!ready) return
    editor
      .chain()
      .focus()
      .insertContent({
        type: 'formula',
        attrs: { markup: withWords(markup, words.trim(), isAlone) },
      })
      .run()
    onClose()
  }
  const putPiece = (piece: string, back: number) => {
    const input = field.current
    if (!input) return
    const [from, to] = [input.selectionStart ?? tex.length, input.selectionEnd ?? tex.length]
    input.setRangeText(piece, from, to, 'end')
    setTex(input.value)
    const at = from + piece.length - back
    input.focus()
    input.setSelectionRange(at, at)
  }
  return (
    <form
      className="grid gap-2 border border-t-0 border-line bg-band px-2 py-2"
      onSubmit={(event) => {
        event.preventDefault()
        event.stopPropagation()
        put()
      }}
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.key === 'Escape') {
          onClose()
          editor.commands.focus()
        }
      }}
    >
      {isFixed ? (
        <p className="text-ink-2">
          This formula came without what was typed for it: only its words can be changed here.
        </p>
      ) : (
        <>
          <label className="flex flex-col gap-0.5 text-ink-2">
            The formula, in TeX
            <input
              ref={field}
              autoFocus
              spellCheck={false}
              className="border border-line-strong bg-sheet px-2 py-1 font-mono text-ink"
              placeholder="d \approx 2.08 \sqrt{h}"
              value={tex}
              maxLength={2000}
              onChange={(event) => setTex(event.target.value)}
            />
          </label>
          <span className="flex flex-wrap gap-x-3" role="group" aria-label="Put into the formula">
            {pieces.map(([name, piece, back]) => (
              <Button key={name} shape="word" onClick={() => putPiece(piece, back)}>
                {name}
              </Button>
            ))}
          </span>
        </>
      )}
      {wrong !== null ? (
        <p role="alert" className="text-rust">
          This cannot be set: {wrong}
        </p>
      ) : (
        markup !== '' && (
          <div role="group" aria-label="As it will look" className="page-text bg-sheet px-2 py-1">
            <PageHtml html={markup} sourceOf={noSource} />
          </div>
        )
      )}
      <Field
        autoFocus={isFixed}
        label="How it is read aloud"
        placeholder="d is about 2.08 times the square root of h"
        value={words}
        maxLength={500}
        onChange={(event) => setWords(event.target.value)}
      />
      <Tick label="on a line of its own" checked={isAlone} onChange={setAlone} />
      <span className="flex items-center gap-4">
        <Button type="submit" disabled={!ready}>
          {chosen === null ? 'Put formula in' : 'Change the formula'}
        </Button>
        <Button
          shape="word"
          onClick={() => {
            onClose()
            editor.commands.focus()
          }}
        >
          never mind
        </Button>
      </span>
    </form>
  )
}
