import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { FollowUpPut } from '@wickerframe/contract'
import { call } from '../../../api/client.ts'

/** Raising, promising, answering and closing findings of a course, as of a day. */
export const useFollowUp = (courseId: number, asOf: string) => {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (put: FollowUpPut) =>
      call('followUp', { at: { course: courseId }, query: { asOf }, body: put }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['course', String(courseId)] }),
  })
}
