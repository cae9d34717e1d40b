import { useState } from 'react'
import { ambiguityOf, parseFormat } from '@wickerframe/core'

/** Address of the naming bench for a part of a template. */
export const benchAddress = (template: string, part: string): string =>
  `/names?template=${template}&part=${part}`

/** A naming format with its fields in the accent colour. */
export const FormatText = ({ format }: { format: string }) => (
  <span className="font-mono text-[12.5px]">
    {format.split(/(\{[^}]*\})/).map((part, i) => (
      <span key={i} className={part.startsWith('{') ? 'text-tide' : ''}>
        {part}
      </span>
    ))}
  </span>
)

/** Edits a naming format: it is kept as typed, told what is wrong and where, and handed on only when it is right. */
export const FormatField = ({
  value,
  label,
  onDone,
  onCancel,
}: {
  value: string
  label: string
  onDone: (format: string) => void
  onCancel: () => void
}) => {
  const [typed, setTyped] = useState(value)
  const result = parseFormat(typed)
  const problem = result.ok ? null : result.problems[0]
  const warning = result.ok ? ambiguityOf(result.value) : null
  return (
    <span className="relative block">
      <input
        autoFocus
        aria-label={label}
        aria-invalid={problem !== null}
        value={typed}
        spellCheck={false}
        className={`w-full border bg-sheet px-1 py-0.5 font-mono text-[12.5px] ${problem ? 'border-rust' : 'border-tide'}`}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key === 'Enter' && result.ok) onDone(typed)
          if (event.key === 'Escape') onCancel()
        }}
        onBlur={() => result.ok && onDone(typed)}
      />
      {(problem || warning) && (
        <span
          role="alert"
          className="absolute left-0 top-full z-10 block w-max max-w-[26rem] border border-line-strong bg-sheet px-2 py-1 text-[12.5px]"
        >
          {problem
            ? `At character ${problem.at + 1}: ${problem.message}${problem.suggestion ? `; ${problem.suggestion}` : ''}`
            : warning}
        </span>
      )}
    </span>
  )
}
