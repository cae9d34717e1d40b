import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import {
  emptyQuestion,
  faultsOf,
  offeredQuestions,
  type Question,
  type QuestionBody,
  type QuestionKind,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { NumberLine, useTyped } from '../../../controls/typed.tsx'
import type { PageSources } from '../page/pageSources.ts'
import { RichText } from '../page/RichText.tsx'
import { AnswerLines } from './AnswerLines.tsx'
import { faultWords } from './faultWords.ts'
import { QuestionRead } from './QuestionRead.tsx'

const leftWords = {
  fixed: 'stands as it is written',
  proposed: 'is proposed: the instructor may change it',
  sample: 'is a sample: the instructor puts one of theirs in its place',
} as const

/** A question as another kind: what is asked stays, and its answers as far as the kind has any. */
const asKind = (body: QuestionBody, kind: QuestionKind): QuestionBody => {
  const { text, points, feedback } = body
  const shared = { text, points, ...(feedback === undefined ? {} : { feedback }) }
  const next = emptyQuestion(kind)
  if ('choices' in next && 'choices' in body)
    return { ...next, ...shared, choices: body.choices, shuffled: body.shuffled }
  if ('answers' in next && 'answers' in body) return { ...next, ...shared, answers: body.answers }
  return { ...next, ...shared }
}

/** A question without the answers that say nothing, as long as enough are left. */
const tidied = (question: Question): Question => {
  const { body } = question
  if ('choices' in body) {
    const choices = body.choices.filter(({ text }) => text.trim() !== '')
    return choices.length < 2 || choices.length === body.choices.length
      ? question
      : { ...question, body: { ...body, choices } }
  }
  if (!('answers' in body)) return question
  const answers = body.answers.filter((text) => text.trim() !== '')
  return answers.length === 0 || answers.length === body.answers.length
    ? question
    : { ...question, body: { ...body, answers } }
}

/** Tab leads from what is asked to the first answer and back, past the tools in between; within a table it is the table’s. */
const passOver = (event: KeyboardEvent): void => {
  const within = event.currentTarget
  const text = within.querySelector<HTMLElement>('[contenteditable="true"]')
  const first = within.querySelector<HTMLElement>('[data-line], [data-answer]')
  const isInTable = document.getSelection()?.anchorNode?.parentElement?.closest('td, th')
  const to =
    !event.shiftKey && event.target === text && !isInTable
      ? first
      : event.shiftKey && event.target === first
        ? text
        : null
  if (!to) return
  event.preventDefault()
  event.stopPropagation()
  to.focus()
}

/** One question: read as students will see it, or open and written in. */
export const QuestionCard = ({
  question,
  number,
  isOpen,
  isFromAbove,
  disabled,
  sources,
  sourceOf,
  onOpen,
  onDone,
  onNext,
  onMove,
  onRemove,
}: {
  question: Question
  number: number
  isOpen: boolean
  isFromAbove: boolean
  disabled: boolean
  sources: PageSources
  /** What shows an image, by its name; null: it is not there. */
  sourceOf: (name: string) => string | null
  onOpen: (isOpen: boolean) => void
  onDone: (question: Question) => void
  onNext: () => void
  onMove: (by: 1 | -1) => void
  onRemove: () => void
}) => {
  const held = useTyped(question, onDone)
  const { typed } = held
  // Lines that were left empty are none.
  const [wasShown, setShown] = useState(isOpen)
  if (wasShown !== isOpen) {
    setShown(isOpen)
    if (!isOpen) held.setTyped(tidied)
  }
  const card = useRef<HTMLLIElement>(null)
  const wasOpen = useRef(false)
  useEffect(() => {
    if (!isOpen && wasOpen.current && card.current?.contains(document.activeElement))
      card.current.querySelector<HTMLElement>('[data-question]')?.focus()
    wasOpen.current = isOpen
  }, [isOpen])
  const setText = (text: string) =>
    held.setTyped((now) => ({ ...now, body: { ...now.body, text } }))
  /** All but what is asked, which may have been written on meanwhile. */
  const setBody = (body: QuestionBody) =>
    held.setTyped((now) => ({ ...now, body: { ...body, text: now.body.text } }))
  const close = () => {
    held.flush()
    onOpen(false)
    card.current?.querySelector<HTMLElement>('[data-question]')?.focus()
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault()
      held.flush()
      onNext()
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault()
      held.flush()
      onMove(event.key === 'ArrowUp' ? -1 : 1)
    } else if (event.key === 'Tab' && isOpen) passOver(event)
    else if (event.key === 'Escape' && isOpen) {
      event.preventDefault()
      event.stopPropagation()
      close()
    }
  }
  const { body } = typed
  const faults = faultsOf(body)
  const name = `Question ${number}`
  return (
    <li
      ref={card}
      className={`border ${isOpen ? 'border-tide' : 'border-line'} bg-sheet`}
      onKeyDownCapture={isOpen && !disabled ? onKeyDown : undefined}
    >
      <div
        data-question
        tabIndex={0}
        role="group"
        aria-label={`${name}${isFromAbove ? ', from the layer above' : ''}${isOpen ? '' : '; Enter opens it'}`}
        className="flex flex-wrap gap-x-3 px-3 py-2"
        onKeyDown={(event) => {
          if (event.target !== event.currentTarget || isOpen) return
          if (event.key === 'Enter' && !event.ctrlKey && !isFromAbove) {
            event.preventDefault()
            onOpen(true)
          } else if (event.key === 'Delete' && !disabled) onRemove()
          else if (!disabled) onKeyDown(event)
        }}
        onDoubleClick={() => !isOpen && !isFromAbove && onOpen(true)}
      >
        <span className="w-6 shrink-0 text-right text-ink-3">{number}</span>
        <div className="min-w-0 grow basis-72">
          {isOpen ? (
            <fieldset disabled={disabled} className="grid gap-2">
              <RichText
                label={`What question ${number} asks`}
                html={body.text}
                sources={sources}
                disabled={disabled}
                begins="end"
                onDone={setText}
              />
              <AnswerLines body={body} name={name} onChange={setBody} />
              <div className="flex flex-wrap items-end gap-x-4 gap-y-2 border-t border-line pt-2">
                <Pick
                  label="Kind"
                  aria-label={`Kind of question ${number}`}
                  value={body.kind}
                  onChange={(event) => setBody(asKind(body, event.target.value as QuestionKind))}
                  options={offeredQuestions.map(({ kind, title }) => ({
                    value: kind,
                    text: title,
                  }))}
                />
                <NumberLine
                  label="Points"
                  value={body.points}
                  onDone={(points) => setBody({ ...body, points: points ?? 0 })}
                />
                <Pick
                  label="In courses it"
                  value={typed.left ?? 'fixed'}
                  onChange={(event) => {
                    const { left: _, ...others } = typed
                    const left = event.target.value
                    held.setTyped(
                      left === 'proposed' || left === 'sample' ? { ...others, left } : others,
                    )
                  }}
                  options={Object.entries(leftWords).map(([value, text]) => ({ value, text }))}
                />
              </div>
            </fieldset>
          ) : (
            <>
              <QuestionRead body={body} isPlain showsRight sourceOf={sourceOf} />
              {typed.left && (
                <p className="text-[12.5px] text-ink-3">It {leftWords[typed.left]}.</p>
              )}
              {isFromAbove && (
                <p className="text-[12.5px] text-ink-3">From the layer above, as it is there.</p>
              )}
            </>
          )}
          {!isOpen &&
            faults.map((fault) => (
              <p key={fault} className="text-[13px] text-rust">
                {faultWords[fault]}
              </p>
            ))}
        </div>
        {!disabled && !isFromAbove && (
          <div className="ml-auto flex shrink-0 items-start gap-3">
            <Button shape="word" onClick={() => (isOpen ? close() : onOpen(true))}>
              {isOpen ? 'close' : 'edit'}
            </Button>
            <Button
              shape="word"
              aria-label={`Move question ${number} up`}
              onClick={() => onMove(-1)}
            >
              ↑
            </Button>
            <Button
              shape="word"
              aria-label={`Move question ${number} down`}
              onClick={() => onMove(1)}
            >
              ↓
            </Button>
            <Button shape="word" aria-label={`take out question ${number}`} onClick={onRemove}>
              take out
            </Button>
          </div>
        )}
      </div>
    </li>
  )
}
