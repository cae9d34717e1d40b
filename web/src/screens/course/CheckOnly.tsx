import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { CourseDetail } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useTemplates } from '../../api/queries.ts'
import { Button, Problem } from '../../controls/controls.tsx'

/** Puts a course to which nothing was deployed under a version for checking only: nothing is written to the platform. */
export const CheckOnly = ({ course }: { course: CourseDetail }) => {
  const client = useQueryClient()
  const templates = useTemplates()
  const [key, setKey] = useState(course.template?.key ?? '')
  const template = templates.data?.find((candidate) => candidate.key === key)
  const newest = template?.versions.find((version) => !version.retired)
  const put = useMutation({
    mutationFn: () =>
      call('putUnderVersion', {
        at: { course: course.id },
        body: { template: key, version: newest?.number ?? 0 },
      }),
    onSuccess: () => client.invalidateQueries(),
  })
  if (course.state === 'deployed') return null
  return (
    <div className="mb-2">
      <p className="leading-loose">
        {course.template
          ? `It is held to ${course.template.title}, version ${course.template.version}, for checking only. `
          : ''}
        Hold it to{' '}
        <select
          aria-label="Template for checking"
          className="border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink"
          value={key}
          onChange={(event) => setKey(event.target.value)}
        >
          <option value="">which template?</option>
          {templates.data
            ?.filter(({ versions }) => versions.some((version) => !version.retired))
            .map(({ key, title }) => (
              <option key={key} value={key}>
                {title}
              </option>
            ))}
        </select>
        {newest && <>, version {newest.number}</>}, writing nothing to the platform.{' '}
        <Button disabled={!newest || put.isPending} onClick={() => put.mutate()}>
          Hold it to that version
        </Button>
      </p>
      <Problem error={put.error} />
    </div>
  )
}
