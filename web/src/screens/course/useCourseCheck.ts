import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { call } from '../../api/client.ts'
import { useRun } from '../../api/queries.ts'
import { isOver, waitsForWords } from '../rollouts/runWords.ts'

/** Reading and checking one course, and whatever else was begun for it: how far it is, and what failed. */
export const useCourseCheck = (course: string, asOf: string) => {
  const client = useQueryClient()
  const [run, setRun] = useState<number | null>(null)
  const begin = useMutation({
    mutationFn: () => call('checkCourse', { at: { course }, body: { asOf } }),
    onSuccess: (answer) => setRun(answer.run),
  })
  const progress = useRun(run).data
  const isDone = progress !== undefined && isOver(progress)
  useEffect(() => {
    if (isDone)
      void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'run' })
  }, [isDone, client])
  return {
    begin,
    isRunning: run !== null && !isDone,
    waits: progress ? waitsForWords(progress) : '',
    failure: progress?.tasks.find(({ state }) => state === 'failed')?.message ?? null,
    /** Follows a run that was begun elsewhere on the screen. */
    follow: setRun,
  }
}
