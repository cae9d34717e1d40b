import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { carryKinds } from '@wickerframe/core'
import type { CourseDetail } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useCourses } from '../../api/queries.ts'
import { Button, Problem } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'

/** What was prepared here goes into a teaching course that is still a shell: the plan is looked at first. */
export const IntoTeaching = ({ course }: { course: CourseDetail }) => {
  const navigate = useNavigate()
  const courses = useCourses()
  const [into, setInto] = useState('')
  const { template } = course
  const plan = useMutation({
    mutationFn: () =>
      call('planRollout', {
        body: {
          order: {
            mode: 'carry',
            template: template?.key ?? '',
            version: template?.version ?? 0,
            carry: carryKinds,
          },
          courses: [Number(into)],
          sources: [{ course: Number(into), from: course.id }],
        },
      }),
    onSuccess: ({ run }) => void navigate(`/rollouts/${run}`),
  })
  if (!template) return null
  const shells = (courses.data ?? [])
    .filter(
      ({ status, state }) => status === 'teaching' && (state === 'shell' || state === 'not-read'),
    )
    .sort((a, b) => Number(b.code === course.code) - Number(a.code === course.code))
  const apart = tellApart(shells)
  return (
    <div className="mb-2">
      <p className="leading-loose">
        Bring what was prepared here into{' '}
        <select
          aria-label="Teaching course"
          className="border-0 border-b-2 border-tide bg-tide-soft px-1 py-0.5 text-ink"
          value={into}
          onChange={(event) => setInto(event.target.value)}
        >
          <option value="">which teaching course?</option>
          {shells.map((shell) => (
            <option key={shell.id} value={shell.id}>
              {shell.code} {shell.title}, {apart.get(shell.platformId)}
            </option>
          ))}
        </select>{' '}
        <Button disabled={into === '' || plan.isPending} onClick={() => plan.mutate()}>
          Plan it
        </Button>
      </p>
      <Problem error={plan.error} />
    </div>
  )
}
