import { useTyped } from '../../../../controls/typed.tsx'

/** `#rrggbb` from what people type: with or without the sign, three digits or six, capitals or not; null for anything else. */
export const colourTyped = (text: string): string | null => {
  const digits = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/.exec(text.trim().toLowerCase())?.[1]
  if (digits === undefined) return null
  return `#${digits.length === 3 ? [...digits].map((digit) => digit + digit).join('') : digits}`
}

/** A colour: seen, chosen, or typed. What is no colour stays in its field and is said. */
export const ColourField = ({
  label,
  value,
  onDone,
}: {
  label: string
  value: string
  onDone: (colour: string) => void
}) => {
  const { typed, setTyped, flush } = useTyped(value, (text) => {
    const colour = colourTyped(text)
    if (colour !== null && colour !== value) onDone(colour)
  })
  const wrong = colourTyped(typed) === null
  return (
    <>
      <span>
        <span className="inline-block first-letter:uppercase">{label}</span>
        {wrong && (
          <span role="alert" className="block text-[12.5px] text-rust">
            six digits of 0 to 9 and a to f, such as 143f52
          </span>
        )}
      </span>
      <input
        type="color"
        aria-label={`${label}: choose`}
        className="h-8 w-10 cursor-pointer border border-line-strong bg-sheet"
        value={colourTyped(typed) ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={flush}
      />
      <input
        aria-label={label}
        aria-invalid={wrong}
        spellCheck={false}
        className={`w-24 border bg-sheet px-2 py-1 font-mono ${wrong ? 'border-rust' : 'border-line-strong'}`}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={flush}
      />
    </>
  )
}
