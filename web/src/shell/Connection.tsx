import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { isUnreachable } from '../api/client.ts'
import { Button } from '../controls/controls.tsx'

/** Says that the server cannot be reached while something that was asked for got no answer, and asks again. */
export const Connection = () => {
  const client = useQueryClient()
  const [lost, setLost] = useState(false)
  useEffect(() => {
    const cache = client.getQueryCache()
    const look = () =>
      setLost(
        !navigator.onLine ||
          cache.getAll().some((query) => query.isActive() && isUnreachable(query.state.error)),
      )
    const back = () => void client.refetchQueries({ type: 'active' })
    const stop = cache.subscribe(look)
    window.addEventListener('offline', look)
    window.addEventListener('online', look)
    window.addEventListener('online', back)
    look()
    return () => {
      stop()
      window.removeEventListener('offline', look)
      window.removeEventListener('online', look)
      window.removeEventListener('online', back)
    }
  }, [client])
  return (
    <div role="status" className={lost ? 'border-b border-rust bg-rust-soft' : ''}>
      {lost && (
        <p className="mx-auto flex max-w-[1400px] flex-wrap items-baseline gap-4 px-6 py-2">
          The server cannot be reached, so what you see may be old. What you typed is still here.
          <Button shape="word" onClick={() => void client.refetchQueries({ type: 'active' })}>
            try again
          </Button>
        </p>
      )}
    </div>
  )
}
