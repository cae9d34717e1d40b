import {
  useEffect,
  type ButtonHTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
} from 'react'
import { localDateOf, localTimeOf } from '@wickerframe/core'
import { ApiError } from '../api/client.ts'

const shapes = {
  main: 'bg-tide text-sheet border-tide font-semibold print:hidden',
  plain: 'bg-sheet text-ink border-line-strong font-semibold print:hidden',
  word: 'border-transparent text-tide underline underline-offset-2 px-0! print:no-underline',
} as const

/** Never smaller than 24 by 24 pixels (WCAG 2.2, 2.5.8), also where words wrap under one another. */
export const Button = ({
  shape = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { shape?: keyof typeof shapes }) => (
  <button
    type="button"
    className={`min-h-[24px] min-w-[24px] rounded-sm border px-3 py-1.5 leading-tight disabled:opacity-55 ${shapes[shape]} ${className}`}
    {...rest}
  />
)

export const Choice = ({
  pressed,
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { pressed: boolean }) => (
  <button
    type="button"
    aria-pressed={pressed}
    className={`rounded-full border px-3 py-0.5 ${pressed ? 'border-ink bg-ink text-sheet' : 'border-line-strong bg-sheet text-ink'}`}
    {...rest}
  >
    {children}
  </button>
)

export const Field = ({
  label,
  className = '',
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string }) => (
  <label className={`flex flex-col gap-0.5 text-ink-2 ${className}`}>
    <span>{label}</span>
    <input className="border border-line-strong bg-sheet px-2 py-1 text-ink" {...rest} />
  </label>
)

interface PickOption {
  value: string
  text: string
  group?: string | undefined
}
const optionOf = ({ value, text }: PickOption) => (
  <option key={value} value={value}>
    {text}
  </option>
)
/** Options that follow one another in the same group. */
const groupsOf = (options: readonly PickOption[]) => {
  const groups: { title: string | undefined; options: PickOption[] }[] = []
  for (const option of options) {
    const last = groups.at(-1)
    if (last && last.title === option.group) last.options.push(option)
    else groups.push({ title: option.group, options: [option] })
  }
  return groups
}

export const Pick = ({
  label,
  options,
  className = '',
  inline = false,
  ...rest
}: SelectHTMLAttributes<HTMLSelectElement> & {
  label: string
  /** Those of one group stand side by side. */
  options: readonly PickOption[]
  inline?: boolean
}) => (
  <label
    className={`flex min-w-0 gap-1 text-ink-2 ${inline ? 'items-baseline' : 'flex-col'} ${className}`}
  >
    <span>{label}</span>
    <select className="min-w-0 border border-line-strong bg-sheet px-2 py-1 text-ink" {...rest}>
      {groupsOf(options).map(({ title, options: among }) =>
        title === undefined ? (
          among.map(optionOf)
        ) : (
          <optgroup key={title} label={title}>
            {among.map(optionOf)}
          </optgroup>
        ),
      )}
    </select>
  </label>
)

const mostProblems = 8

/** What went wrong, where, and what to do; announced when it appears. */
export const Problem = ({ error }: { error: unknown }) => {
  if (!error) return null
  const body = error instanceof ApiError ? error.body : null
  return (
    <div role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-2 text-ink">
      <p>{body?.detail ?? (error instanceof Error ? error.message : String(error))}</p>
      {body?.problems && body.problems.length > 1 && (
        <ul className="mt-1 list-disc pl-5">
          {body.problems.slice(0, mostProblems).map((problem) => (
            <li key={problem.path + problem.expected}>
              {problem.path || 'document'}: found {problem.found}; expected {problem.expected}
            </li>
          ))}
          {body.problems.length > mostProblems && (
            <li>and {body.problems.length - mostProblems} more</li>
          )}
        </ul>
      )}
    </div>
  )
}

export const Page = ({
  title,
  above,
  beside,
  children,
}: {
  title: string
  above?: ReactNode
  beside?: ReactNode
  children: ReactNode
}) => {
  useEffect(() => {
    document.title = `${title} · Wickerframe`
  }, [title])
  return (
    <main id="main" className="mx-auto max-w-[1400px] px-6 pb-16 pt-4">
      {above && <p className="text-ink-2">{above}</p>}
      <div className="flex flex-wrap items-start justify-between gap-3">
        <h1 className="title">{title}</h1>
        <div className="flex flex-wrap items-center gap-2">{beside}</div>
      </div>
      {children}
    </main>
  )
}

export const Waiting = ({ what }: { what: string }) => (
  <p role="status" className="py-8 text-ink-2">
    Reading {what} …
  </p>
)

/** Words with the evidence in quotation marks marked. */
export const Sentence = ({
  text,
  strength,
}: {
  text: string
  strength: 'must' | 'should' | 'may'
}) => (
  <>
    {text.split(/(“[^”]*”)/).map((part, i) =>
      part.startsWith('“') ? (
        <mark
          key={i}
          className={`px-0.5 text-ink ${strength === 'must' ? 'bg-rust-soft' : 'bg-straw-soft'}`}
        >
          {part}
        </mark>
      ) : (
        <span key={i}>{part}</span>
      ),
    )}
  </>
)

/** A moment as `2026-09-14 08:40`, the time alone when it was today, in the reader's own time zone. */
export const Moment = ({ at, today }: { at: string; today?: string | undefined }) => {
  const { timeZone } = new Intl.DateTimeFormat().resolvedOptions()
  const day = localDateOf(at, timeZone)
  const time = localTimeOf(at, timeZone)
  return <time dateTime={at}>{day === today ? time : `${day} ${time}`}</time>
}

export const plural = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`
