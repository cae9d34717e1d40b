import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react'
import { firstWords, type Choice, type QuestionBody } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'

const field = 'min-w-0 grow border border-line-strong bg-sheet px-2 py-1 text-ink'

/** Lines that are written one after another: Enter makes the next, Backspace in an empty one goes back. */
const Lines = <T,>({
  lines,
  name,
  empty,
  textOf,
  withText,
  before,
  onChange,
  onMark,
}: {
  lines: readonly T[]
  name: string
  empty: () => T
  textOf: (line: T) => string
  withText: (line: T, text: string) => T
  /** What stands before a line. */
  before?: (line: T, index: number) => ReactNode
  onChange: (lines: T[]) => void
  /** A star typed before a line, or Alt R: it is right. */
  onMark?: (index: number) => void
}) => {
  const list = useRef<HTMLUListElement>(null)
  /** The line that has the focus once it is there. */
  const goTo = useRef<number | null>(null)
  const setGoTo = (at: number) => void (goTo.current = at)
  const focus = () => {
    const lines = list.current?.querySelectorAll<HTMLInputElement>('input[data-line]')
    if (goTo.current !== null) lines?.[goTo.current]?.focus()
    goTo.current = null
  }
  useEffect(focus)
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>, i: number) => {
    if (event.ctrlKey || event.metaKey) return
    if (event.key === 'Enter') {
      event.preventDefault()
      const next = lines[i + 1]
      setGoTo(i + 1)
      if (next !== undefined && textOf(next) === '') focus()
      else onChange(lines.toSpliced(i + 1, 0, empty()))
    } else if (event.key === 'Backspace' && event.currentTarget.value === '' && lines.length > 1) {
      event.preventDefault()
      onChange(lines.toSpliced(i, 1))
      setGoTo(Math.max(0, i - 1))
    } else if (event.key.toLowerCase() === 'r' && event.altKey && onMark) {
      event.preventDefault()
      onMark(i)
    } else if (!event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      const to = i + (event.key === 'ArrowUp' ? -1 : 1)
      if (to < 0 || to >= lines.length) return
      event.preventDefault()
      setGoTo(to)
      focus()
    }
  }
  return (
    <ul ref={list} className="grid gap-1">
      {lines.map((line, i) => (
        <li key={i} className="flex items-center gap-2">
          {before?.(line, i)}
          <input
            data-line
            aria-label={`Answer ${i + 1} of ${name.toLowerCase()}`}
            className={field}
            value={textOf(line)}
            onChange={(event) => {
              const { value } = event.target
              if (onMark && value.startsWith('*') && !textOf(line).startsWith('*')) onMark(i)
              else onChange(lines.with(i, withText(line, value)))
            }}
            onKeyDown={(event) => onKeyDown(event, i)}
          />
          <Button
            shape="word"
            tabIndex={-1}
            aria-label={`Take out answer ${i + 1} of ${name.toLowerCase()}`}
            disabled={lines.length < 2}
            onClick={() => {
              onChange(lines.toSpliced(i, 1))
              setGoTo(Math.max(0, i - 1))
            }}
          >
            ×
          </Button>
        </li>
      ))}
      <li>
        <Button
          shape="word"
          onClick={() => {
            onChange([...lines, empty()])
            setGoTo(lines.length)
          }}
        >
          another answer
        </Button>
      </li>
    </ul>
  )
}

const Told = ({
  label,
  value,
  isAnswer = false,
  onChange,
}: {
  label: string
  value: string | undefined
  /** Whether it is what comes after the text of the question. */
  isAnswer?: boolean
  onChange: (value: string | undefined) => void
}) => (
  <label className="flex items-center gap-2 text-[13px] text-ink-2">
    <span className="w-60 shrink-0">{label}</span>
    <input
      data-answer={isAnswer || undefined}
      className={field}
      value={value ?? ''}
      onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value)}
    />
  </label>
)

/** A field that may be left out. */
const withField = <T extends object>(of: T, field: keyof T, value: unknown): T => {
  const next = { ...of, [field]: value }
  if (value === undefined) delete next[field]
  return next
}

const Choices = ({
  body,
  name,
  onChange,
}: {
  body: Extract<QuestionBody, { choices: Choice[] }>
  name: string
  onChange: (body: QuestionBody) => void
}) => {
  const isOne = body.kind === 'one-answer'
  const put = (choices: Choice[]) => onChange({ ...body, choices })
  const mark = (at: number) =>
    put(
      body.choices.map((choice, i) => ({
        ...choice,
        right: isOne ? i === at : i === at ? !choice.right : choice.right,
      })),
    )
  return (
    <>
      <Lines
        lines={body.choices}
        name={name}
        empty={(): Choice => ({ text: '', right: false })}
        textOf={({ text }) => text}
        withText={(choice, text) => ({ ...choice, text })}
        before={(choice, i) => (
          <input
            type={isOne ? 'radio' : 'checkbox'}
            name={`right of ${name}`}
            className="size-[18px] shrink-0 accent-tide"
            aria-label={`Answer ${i + 1} of ${name.toLowerCase()} is right`}
            checked={choice.right}
            onChange={() => mark(i)}
          />
        )}
        onChange={put}
        onMark={mark}
      />
      <Tick
        label="every student finds the answers in an order of their own"
        checked={body.shuffled}
        onChange={(shuffled) => onChange({ ...body, shuffled })}
      />
    </>
  )
}

/** How a question is answered, and what students are told afterwards. */
export const AnswerLines = ({
  body,
  name,
  onChange,
}: {
  body: QuestionBody
  name: string
  onChange: (body: QuestionBody) => void
}) => (
  <>
    {'choices' in body && <Choices body={body} name={name} onChange={onChange} />}
    {body.kind === 'true-or-false' && (
      <div
        role="radiogroup"
        aria-label={`What is right in ${name.toLowerCase()}`}
        className="flex gap-4"
      >
        {[true, false].map((right) => (
          <label key={String(right)} className="flex items-center gap-1.5">
            <input
              type="radio"
              data-answer
              name={`right of ${name}`}
              className="size-[18px] accent-tide"
              checked={body.right === right}
              onChange={() => onChange({ ...body, right })}
            />
            {right ? 'True' : 'False'}
          </label>
        ))}
      </div>
    )}
    {(body.kind === 'short-answer' || body.kind === 'pattern') && (
      <>
        <Lines
          lines={body.answers}
          name={name}
          empty={() => ''}
          textOf={(text) => text}
          withText={(_, text) => text}
          onChange={(answers) => onChange({ ...body, answers })}
        />
        <p className="text-[12.5px] text-ink-3">
          {body.kind === 'pattern'
            ? '* stands for anything, or for nothing: *tide* takes “a spring tide”.'
            : 'Every answer that is right; capital letters make no difference.'}
        </p>
      </>
    )}
    {body.kind === 'essay' && (
      <Told
        label="What a good answer says"
        isAnswer
        value={body.model}
        onChange={(model) => onChange(withField(body, 'model', model))}
      />
    )}
    <details open={body.feedback !== undefined}>
      <summary className="cursor-pointer text-ink-2">What students are told afterwards</summary>
      <div className="mt-1 grid gap-1">
        {'choices' in body &&
          body.choices.map((choice, i) => (
            <Told
              key={i}
              label={`to “${firstWords(choice.text) || `answer ${i + 1}`}”`}
              value={choice.feedback}
              onChange={(feedback) =>
                onChange({
                  ...body,
                  choices: body.choices.with(i, withField(choice, 'feedback', feedback)),
                })
              }
            />
          ))}
        <Told
          label="to everybody"
          value={body.feedback}
          onChange={(feedback) => onChange(withField(body, 'feedback', feedback))}
        />
      </div>
    </details>
  </>
)
