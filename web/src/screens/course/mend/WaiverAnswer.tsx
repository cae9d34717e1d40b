import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { MeInCourse, StoredWaiver } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Problem } from '../../../controls/controls.tsx'

type Decision = 'approve' | 'refuse' | 'withdraw'

/** What can be decided on a waiver that is asked for: giving and refusing it, or taking back that one asked. */
export const WaiverAnswer = ({
  courseId,
  waiver,
  me,
}: {
  courseId: number
  waiver: StoredWaiver
  me: MeInCourse
}) => {
  const client = useQueryClient()
  const decide = useMutation({
    mutationFn: (decision: Decision) =>
      call('decideWaiver', { at: { course: courseId, waiver: waiver.id }, body: { decision } }),
    onSuccess: () => client.invalidateQueries(),
  })
  const decisions: readonly Decision[] = may(me, 'decide waivers')
    ? ['approve', 'refuse', 'withdraw']
    : may(me, 'decide for course') && waiver.askedBy === me.email
      ? ['withdraw']
      : []
  return (
    <>
      {decisions.map((decision) => (
        <Button
          key={decision}
          shape="word"
          className="mr-3 py-0!"
          disabled={decide.isPending}
          onClick={() => decide.mutate(decision)}
        >
          {decision}
        </Button>
      ))}
      <Problem error={decide.error} />
    </>
  )
}
