import { useCallback } from 'react'
import { useSearchParams } from 'react-router'

/** Filters and choices live in the address: what it says, and a way to change some of it without a new entry in the history. */
export const useAddress = () => {
  const [search, setSearch] = useSearchParams()
  const set = useCallback(
    (values: Readonly<Record<string, string | null>>) =>
      setSearch(
        () => {
          // From the address itself: two changes in one breath would otherwise start from the same state, and one be lost.
          const next = new URLSearchParams(window.location.search)
          for (const [name, value] of Object.entries(values))
            if (value) next.set(name, value)
            else next.delete(name)
          return next
        },
        { replace: true },
      ),
    [setSearch],
  )
  return { search, set }
}
