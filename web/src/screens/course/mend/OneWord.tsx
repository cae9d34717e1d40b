import { useMutation, useQueryClient } from '@tanstack/react-query'
import { settledByWord, type Finding, type FindingPlace } from '@wickerframe/core'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Problem } from '../../../controls/controls.tsx'
import type { FindingActions } from './actions.ts'

/** What one word of whoever teaches settles at a place: a part left out on purpose, a tool that is set up. */
export const OneWord = ({
  finding,
  place,
  actions: { courseId, me },
}: {
  finding: Finding
  place: FindingPlace
  actions: FindingActions
}) => {
  const { instance } = place.place
  if (!may(me, 'decide for course') || place.waived) return null
  if (finding.rule === 'item-missing' && place.says === 'unsaid' && instance !== null)
    return <NotThisWeek courseId={courseId} instance={instance} />
  return settledByWord({ rule: finding.rule, outcome: 'failed' }) ? (
    <Attest
      courseId={courseId}
      fingerprints={[place.fingerprint]}
      words="It is set up for this term"
    />
  ) : null
}

/** A word that somebody gives with one press. */
const Word = ({ words, give }: { words: string; give: () => Promise<unknown> }) => {
  const client = useQueryClient()
  const say = useMutation({ mutationFn: give, onSuccess: () => client.invalidateQueries() })
  return (
    <>
      <Button
        shape="word"
        className="py-0.5!"
        disabled={say.isPending}
        onClick={() => say.mutate()}
      >
        {words}
      </Button>
      <Problem error={say.error} />
    </>
  )
}

/** A part that may go is left out on purpose; one word of the instructor's says so. */
const NotThisWeek = ({ courseId, instance }: { courseId: number; instance: string }) => (
  <Word
    words="Not this week"
    give={() =>
      call('notThisWeek', { at: { course: courseId }, body: { instance, leftOut: true } })
    }
  />
)

export const Attest = ({
  courseId,
  fingerprints,
  words,
}: {
  courseId: number
  fingerprints: readonly string[]
  words: string
}) => (
  <Word
    words={words}
    give={() =>
      call('attest', { at: { course: courseId }, body: { fingerprints: [...fingerprints], words } })
    }
  />
)
