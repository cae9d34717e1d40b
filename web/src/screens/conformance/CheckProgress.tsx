import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link } from 'react-router'
import type { RunDetail } from '@wickerframe/contract'
import { plural } from '../../controls/controls.tsx'
import { isOver, progressOf, waitsForWords } from '../rollouts/runWords.ts'

/**
 * A check run: how far it is and what it waits for, and what could not be checked once it is over. What is shown of courses is
 * read again then.
 */
export const CheckProgress = ({ detail }: { detail: RunDetail }) => {
  const client = useQueryClient()
  const over = isOver(detail)
  useEffect(() => {
    if (over) void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'run' })
  }, [over, client])
  if (over && detail.counts.failed === 0) return null
  const see = (words: string) => (
    <Link className="underline" to={`/rollouts/${detail.id}`}>
      {words}
    </Link>
  )
  if (over)
    return (
      <p role="alert" className="text-rust">
        {plural(detail.counts.failed, 'course')} could not be checked: {see('see why')}
      </p>
    )
  const { all, over: checked } = progressOf(detail)
  return (
    <p role="status" className="text-ink-2">
      Checking: {checked} of {all}
      {detail.secondsLeft !== null && `, about ${Math.ceil(detail.secondsLeft)} s left`}.{' '}
      {waitsForWords(detail)} {see('See the run')}
    </p>
  )
}
