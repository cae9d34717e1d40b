import { useRef, useState } from 'react'
import { Button, plural } from '../../controls/controls.tsx'

const mostBytes = 8_000_000
const mostInField = 400
const pastedPastField = 4000

/** Names pasted or read from a file, one a line. */
export const TypedNames = ({
  value,
  onChange,
}: {
  value: string
  onChange: (names: string) => void
}) => {
  const file = useRef<HTMLInputElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const read = async (chosen: File | undefined) => {
    if (!chosen) return
    if (chosen.size > mostBytes) {
      setProblem(`${chosen.name} is larger than 8 MB; a list of names is expected, one a line`)
      return
    }
    try {
      onChange(new TextDecoder('utf-8', { fatal: true }).decode(await chosen.arrayBuffer()))
      setProblem(null)
    } catch {
      setProblem(`${chosen.name} is not UTF-8 text; save it as UTF-8, one name a line`)
    }
  }
  const count = value.split('\n').filter((line) => line.trim() !== '').length
  return (
    <div className="mt-2">
      {count > mostInField ? (
        <p className="border border-line bg-sheet px-2 py-1">
          A list of {plural(count, 'name')}, from “{value.slice(0, 60).split('\n')[0]}” on. It is
          too long to edit here.
        </p>
      ) : (
        <label className="flex flex-col gap-0.5 text-ink-2">
          <span>Names, one a line</span>
          <textarea
            onPaste={(event) => {
              // A field takes seconds to lay thousands of lines out; a long list goes past it.
              const pasted = event.clipboardData.getData('text/plain')
              if (pasted.length < pastedPastField) return
              event.preventDefault()
              const { selectionStart, selectionEnd } = event.currentTarget
              onChange(value.slice(0, selectionStart) + pasted + value.slice(selectionEnd))
            }}
            rows={count > 8 ? 4 : 6}
            spellCheck={false}
            className="border border-line-strong bg-sheet px-2 py-1 text-ink"
            placeholder={'wk 3 - tides (9/14 to 9/20)\nWeek 4: Variation'}
            value={value}
            onChange={(event) => onChange(event.target.value)}
          />
        </label>
      )}
      <p className="flex flex-wrap gap-4">
        <Button shape="word" onClick={() => file.current?.click()}>
          read from a text file
        </Button>
        {count > 0 && <span className="text-ink-2">{plural(count, 'name')}</span>}
        {count > 0 && (
          <Button shape="word" onClick={() => onChange('')}>
            clear
          </Button>
        )}
      </p>
      <input
        ref={file}
        type="file"
        accept=".txt,.csv,text/plain"
        className="sr-only"
        tabIndex={-1}
        aria-label="File with names"
        onChange={(event) => {
          void read(event.target.files?.[0])
          event.target.value = ''
        }}
      />
      {problem && (
        <p role="alert" className="text-rust">
          {problem}
        </p>
      )}
    </div>
  )
}
