import { useId, useState } from 'react'

/** Signs as a person counts them. */
const lengthOf = (text: string): number => [...text].length

/**
 * Asks for a password of one's own choice: shown when one wants to see it, pasted and kept by a password manager as one likes,
 * and how long it has to be is said before it is sent.
 */
export const NewPassword = ({
  value,
  least,
  onChange,
}: {
  value: string
  least: number
  onChange: (value: string) => void
}) => {
  const id = useId()
  const [shown, setShown] = useState(false)
  const left = least - lengthOf(value)
  return (
    <div className="flex flex-col gap-0.5 text-ink-2">
      <label htmlFor={id}>New password</label>
      <input
        id={id}
        className="border border-line-strong bg-sheet px-2 py-1 text-ink"
        type={shown ? 'text' : 'password'}
        autoComplete="new-password"
        required
        maxLength={200}
        aria-describedby={`${id}-says`}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      <div className="flex flex-wrap justify-between gap-x-4">
        <span id={`${id}-says`}>
          {left > 0 && value !== ''
            ? `${left} more of at least ${least} characters`
            : `At least ${least} characters: several words that do not belong together are easy to keep in mind`}
        </span>
        <label className="flex items-baseline gap-1.5">
          <input type="checkbox" checked={shown} onChange={() => setShown(!shown)} />
          show it
        </label>
      </div>
    </div>
  )
}
