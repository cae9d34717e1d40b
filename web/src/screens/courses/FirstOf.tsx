import type { ReactNode } from 'react'

/** The first of many, one a line, and how many more there are. */
export const FirstOf = <T,>({
  all,
  most = 40,
  children,
}: {
  all: readonly T[]
  most?: number
  children: (one: T) => ReactNode
}) => (
  <ul className="mt-1 list-disc pl-5 text-ink-2">
    {all.slice(0, most).map((one, i) => (
      <li key={i}>{children(one)}</li>
    ))}
    {all.length > most && <li>and {all.length - most} more</li>}
  </ul>
)
