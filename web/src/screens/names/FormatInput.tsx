import { useId, useRef } from 'react'
import { ambiguityOf, fieldNames, fields, parseFormat, type FieldName } from '@wickerframe/core'

const of: readonly { of: (typeof fields)[FieldName]['of']; title: string }[] = [
  { of: 'module', title: 'of its place' },
  { of: 'item', title: 'of the item' },
  { of: 'course', title: 'of the course' },
]

/** A large field for one format: what is wrong with it is told under the very character, and fields are put in with a press. */
export const FormatInput = ({
  value,
  onChange,
}: {
  value: string
  onChange: (format: string) => void
}) => {
  const input = useRef<HTMLInputElement>(null)
  const told = useId()
  const result = parseFormat(value)
  const problem = result.ok ? null : result.problems[0]
  const warning = result.ok ? ambiguityOf(result.value) : null
  const put = (field: FieldName) => {
    const box = input.current
    const at = box?.selectionStart ?? value.length
    const text = field === 'kind' ? '{kind, Lab|Reading}' : `{${field}}`
    onChange(value.slice(0, at) + text + value.slice(box?.selectionEnd ?? at))
    requestAnimationFrame(() => {
      box?.focus()
      box?.setSelectionRange(at + text.length, at + text.length)
    })
  }
  return (
    <div>
      <label className="flex flex-col gap-0.5 text-ink-2">
        <span>Naming format</span>
        <input
          ref={input}
          value={value}
          spellCheck={false}
          autoComplete="off"
          aria-invalid={problem !== null}
          aria-describedby={told}
          className={`w-full border-2 bg-sheet px-3 py-2 font-mono text-[17px] text-ink ${problem ? 'border-rust' : 'border-tide'}`}
          onChange={(event) => onChange(event.target.value)}
        />
      </label>
      <div id={told} role="status" className="min-h-[2.6rem] py-0.5">
        {problem && (
          <>
            {/* The same letters at the same width, so that the mark stands under the character that is meant. */}
            <p
              aria-hidden="true"
              className="h-4 overflow-x-hidden border-x-2 border-transparent px-3 font-mono text-[17px] leading-none whitespace-pre text-rust"
            >
              {' '.repeat(Math.min(problem.at, 90))}^
            </p>
            <p className="text-rust">
              At character {problem.at + 1}: {problem.message}
              {problem.suggestion ? `; ${problem.suggestion}` : ''}
            </p>
          </>
        )}
        {warning && <p className="text-straw">Take care: {warning}</p>}
        {!problem && !warning && (
          <details>
            <summary className="cursor-pointer text-ink-2">Fields to put in</summary>
            <dl className="grid gap-x-4 gap-y-1 border border-line bg-sheet p-2 sm:grid-cols-[7rem_1fr]">
              {of.map((group) => (
                <div key={group.of} className="contents">
                  <dt className="text-ink-2">{group.title}</dt>
                  <dd className="flex flex-wrap gap-x-3">
                    {fieldNames
                      .filter((name) => fields[name].of === group.of)
                      .map((name) => (
                        <button
                          key={name}
                          type="button"
                          title={fields[name].title}
                          className="min-h-[24px] font-mono text-[12.5px] text-tide underline-offset-2 hover:underline"
                          onClick={() => put(name)}
                        >{`{${name}}`}</button>
                      ))}
                  </dd>
                </div>
              ))}
            </dl>
            <p className="text-ink-3">
              After a comma a style: {'{week, 00}'} · {'{dates, d MMM – d MMM}'} ·{' '}
              {'{topic, 2-8 words}'}. A stretch in {'{? … ?}'} is written only when all its fields
              have values. {'{{'} and {'}}'} write braces.
            </p>
          </details>
        )}
      </div>
    </div>
  )
}
