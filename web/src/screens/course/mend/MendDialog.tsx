import { useMutation } from '@tanstack/react-query'
import { useMemo } from 'react'
import {
  changesInWords,
  asSeen,
  mendCourse,
  type CheckResult,
  type Course,
  type Facts,
  type FindingPlace,
  type Template,
} from '@wickerframe/core'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem } from '../../../controls/controls.tsx'
import { Dialog } from '../../../controls/Dialog.tsx'
import { HtmlDifference } from '../../rollouts/TextDifference.tsx'

/** Every change that the chosen mends make, before any of it is made. */
export const MendDialog = ({
  places,
  course,
  facts,
  template,
  result,
  courseId,
  onClose,
  onBegun,
}: {
  places: readonly FindingPlace[]
  course: Course
  facts: Facts
  template: Template
  result: CheckResult
  courseId: number
  onClose: () => void
  onBegun: (run: number) => void
}) => {
  const begin = useMutation({
    mutationFn: () =>
      call('mendCourse', {
        at: { course: courseId },
        body: { mends: places.map(({ fingerprint, digest }) => ({ fingerprint, digest })) },
      }),
    onSuccess: ({ run }) => onBegun(run),
  })
  // Mends of one page are worked out one on another, as they will be when they are made.
  const changes = useMemo(() => {
    const whole =
      places.length > 1
        ? mendCourse(
            { template, facts, course, asOf: result.asOf },
            asSeen(new Map(places.map(({ fingerprint, digest }) => [fingerprint, digest]))),
          )
        : null
    const all =
      whole?.ok && whole.value.mended.length === places.length
        ? whole.value.changes
        : places.flatMap((place) => place.mend ?? [])
    return changesInWords(all, course, facts.term.timeZone)
  }, [places, template, facts, course, result.asOf])
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={places.length === 1 ? 'The mend' : plural(places.length, 'mend')}
      explains="This is all that changes in the course on the platform. What was seen must still stand there when it is made; otherwise it is left."
    >
      <ul className="mt-3 divide-y divide-line border-y border-line">
        {places.map((place) => (
          <li key={place.fingerprint} className="py-1 text-ink-2">
            {place.message}
          </li>
        ))}
      </ul>
      <h3 className="mt-3">What changes</h3>
      <ol className="mt-1 list-decimal space-y-2 pl-6">
        {changes.map((change, i) => (
          <li key={i}>
            {change.says}
            {change.text && (
              <div className="mt-1 border-l-2 border-line-strong pl-3">
                <HtmlDifference before={change.text.before} after={change.text.after} />
              </div>
            )}
          </li>
        ))}
      </ol>
      <Problem error={begin.error} />
      <p className="mt-4 flex gap-3">
        <Button shape="main" disabled={begin.isPending} onClick={() => begin.mutate()}>
          {places.length === 1 ? 'Mend it' : 'Mend them'}
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </Dialog>
  )
}
