import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Remark } from '@wickerframe/core'
import { call } from '../../../api/client.ts'
import { Button, plural, Problem } from '../../../controls/controls.tsx'
import { ChangeList } from './ChangeList.tsx'
import { firstCourseWords, type FirstCourse } from '../firstCourse.ts'
import { ImpactOnCourses } from './ImpactOnCourses.tsx'

/** Before a release: what proofreading says, what changed since the last version, what it would change for courses, and a note to go with it. */
export const ReleasePanel = ({
  template,
  revision,
  latest,
  remarks,
  firstCourse,
  waiting,
  onReleased,
  onProofread,
  onClose,
}: {
  template: string
  revision: number
  latest: number
  remarks: readonly Remark[]
  firstCourse: FirstCourse
  waiting: boolean
  onReleased: () => void
  onProofread: () => void
  onClose: () => void
}) => {
  const client = useQueryClient()
  const [note, setNote] = useState('')
  const changes = useQuery({
    queryKey: ['template', template, 'compare', String(latest), 'draft', revision],
    queryFn: () =>
      call('compareVersions', { at: { template }, query: { from: latest, to: 'draft' } }),
    enabled: latest > 0 && !waiting,
  })
  const release = useMutation({
    mutationFn: () => call('releaseDraft', { at: { template }, body: { revision, note } }),
    onSuccess: () => {
      onReleased()
      void client.invalidateQueries({ queryKey: ['templates'] })
      void client.invalidateQueries({ queryKey: ['template', template] })
    },
  })
  const errors = remarks.filter((remark) => remark.severity === 'error').length
  if (release.data)
    return (
      <p role="status" className="mt-2 border-l-4 border-tide bg-tide-soft px-3 py-1">
        Version {release.data.version} is released. It never changes; what you edit now belongs to
        the next one.{' '}
        <Link
          className="text-tide underline"
          to={`/rollouts/new?template=${template}&version=${release.data.version}`}
        >
          Plan its rollout
        </Link>{' '}
        <Button shape="word" onClick={onClose}>
          close
        </Button>
      </p>
    )
  return (
    <section aria-label="Release" className="mt-2 border border-line-strong bg-sheet p-4">
      <div className="flex justify-between">
        <h2 className="text-[18px]">Release version {latest + 1}</h2>
        <Button shape="word" onClick={onClose}>
          not now
        </Button>
      </div>
      {errors > 0 ? (
        <p className="text-rust">
          Proofreading found {plural(errors, 'error')}; they stop the release.{' '}
          <Button shape="word" onClick={onProofread}>
            see them
          </Button>
        </p>
      ) : (
        <p className="text-ink-2">
          Proofreading found no error
          {remarks.length > 0 ? (
            <>
              {' '}
              and {plural(remarks.length, 'warning')}.{' '}
              <Button shape="word" onClick={onProofread}>
                see {remarks.length === 1 ? 'it' : 'them'}
              </Button>
            </>
          ) : (
            '.'
          )}
        </p>
      )}
      <p role="status" className={firstCourse.remarks.length > 0 ? '' : 'text-ink-2'}>
        {firstCourseWords(firstCourse)}{' '}
        {firstCourse.remarks.length > 0 && (
          <Button shape="word" onClick={onProofread}>
            see what
          </Button>
        )}
      </p>
      {changes.data && (
        <details className="mt-1" open={changes.data.length <= 6}>
          <summary className="cursor-pointer">
            {plural(changes.data.length, 'change')} since version {latest}
          </summary>
          <div className="max-h-56 overflow-y-auto">
            <ChangeList changes={changes.data} />
          </div>
        </details>
      )}
      <ImpactOnCourses template={template} revision={revision} waiting={waiting} />
      <label className="mt-3 flex flex-col text-ink-2">
        A note to go with it: what changed and why
        <textarea
          rows={2}
          maxLength={1000}
          className="border border-line-strong bg-sheet px-2 py-1 text-ink"
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <Problem error={release.error} />
      <Button
        shape="main"
        className="mt-2"
        disabled={errors > 0 || waiting || release.isPending}
        onClick={() => release.mutate()}
      >
        Release version {latest + 1}
      </Button>
    </section>
  )
}
