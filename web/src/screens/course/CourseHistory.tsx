import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Link } from 'react-router'
import { proofWords } from '@wickerframe/core'
import type { CourseDetail, Receipt } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { Button, Moment, Problem } from '../../controls/controls.tsx'
import { doesWords } from '../rollouts/planWords.ts'

const receiptTitle = ({ mode, template, version }: Receipt): string =>
  mode === 'undo'
    ? 'Taken back'
    : mode === 'house-text'
      ? 'A house text as it is worded now'
      : `${template}, version ${version}`
const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
const countsWords = (counts: Receipt['counts']): string => {
  const said = (
    ['create', 'change', 'move', 'adopt', 'remove', 'conflict', 'keep'] as const
  ).flatMap((does) => ((counts[does] ?? 0) > 0 ? [`${doesWords[does]} ${counts[does]}`] : []))
  return said.length > 0 ? said.join(', ') : 'the course itself'
}

/** A newer version is out: bring it in, or judge the course by its strengths without writing to the platform. */
export const NewerVersion = ({ course }: { course: CourseDetail }) => {
  const client = useQueryClient()
  const adopt = useMutation({
    mutationFn: (version: number | null) =>
      call('adoptStrengths', { at: { course: course.id }, body: { version } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['course', String(course.id)] }),
  })
  const { template, strengthsVersion } = course
  if (!template || template.newest <= template.version) return null
  return (
    <div className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-2">
      <p>
        Version {template.newest} of {template.title} is out; this course is under version{' '}
        {template.version}
        {strengthsVersion === null ? '' : `, held to the strengths of version ${strengthsVersion}`}.
      </p>
      <p className="mt-1 flex flex-wrap gap-4">
        <Link
          className="text-tide underline underline-offset-2"
          to={`/rollouts/new?template=${template.key}&version=${template.newest}&courses=${course.id}`}
        >
          Plan the update
        </Link>
        {strengthsVersion === template.newest ? (
          <Button
            shape="word"
            className="py-0!"
            disabled={adopt.isPending}
            onClick={() => adopt.mutate(null)}
          >
            judge it by its own version again
          </Button>
        ) : (
          <Button
            shape="word"
            className="py-0!"
            disabled={adopt.isPending}
            onClick={() => adopt.mutate(template.newest)}
          >
            judge it by version {template.newest}’s strengths, writing nothing
          </Button>
        )}
      </p>
      <Problem error={adopt.error} />
    </div>
  )
}

/** Receipts: what was brought into the course, from which version, when and by whom. */
export const CourseHistory = ({ course }: { course: CourseDetail }) =>
  course.history.length === 0 ? (
    <p className="py-4 text-ink-2">Nothing was deployed to this course.</p>
  ) : (
    <ol className="divide-y divide-line">
      {course.history.map((deployment) => (
        <li key={deployment.number} className="py-2">
          <Link
            className="underline decoration-line-strong underline-offset-2"
            to={`/rollouts/${deployment.run}`}
          >
            {receiptTitle(deployment)}
          </Link>
          : {countsWords(deployment.counts)}, by {deployment.by}, <Moment at={deployment.at} />
          {deployment.proof && (
            <p className={deployment.proof.state === 'differs' ? 'text-rust' : 'text-ink-2'}>
              {capitalised(proofWords(deployment.proof))}.
            </p>
          )}
          {deployment.undoneBy !== null && (
            <span className="text-ink-2">
              {' '}
              · taken back by{' '}
              <Link className="underline" to={`/rollouts/${deployment.undoneBy}`}>
                run {deployment.undoneBy}
              </Link>
            </span>
          )}
        </li>
      ))}
    </ol>
  )
