import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import type { CourseDetail, MergeReport } from '@wickerframe/contract'
import { post } from '../../api/client.ts'
import { useCourses } from '../../api/queries.ts'
import { Button, Problem } from '../../controls/controls.tsx'

/** Merges a course into another one, with what that means shown first. */
export const IntoAnother = ({ course }: { course: CourseDetail }) => {
  const client = useQueryClient()
  const [open, setOpen] = useState(false)
  const [into, setInto] = useState('')
  const courses = useCourses()
  const ask = useMutation({
    mutationFn: (dry: boolean) =>
      post<MergeReport>(`/api/courses/${course.id}/merge`, { into: Number(into), dry }),
    onSuccess: (report) => (report.dry ? undefined : client.invalidateQueries()),
  })
  const others = (courses.data ?? [])
    .filter(
      (one) =>
        one.id !== course.id &&
        one.term === course.term &&
        (one.status === 'teaching' || one.status === 'preparing'),
    )
    .sort((a, b) => Number(b.code === course.code) - Number(a.code === course.code))
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button shape="word">merge into another course</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content className="fixed left-1/2 top-24 w-[40rem] max-w-[95vw] -translate-x-1/2 border border-line-strong bg-sheet p-6">
          <Dialog.Title className="text-xl">
            Merge {course.code} {course.classSections.join(', ')} into another course
          </Dialog.Title>
          <Dialog.Description className="mt-1 text-ink-2">
            Its class sections and people move. Its content stays where it is.
          </Dialog.Description>
          <label className="mt-3 flex flex-col gap-1 text-ink-2">
            Into
            <select
              className="border border-line-strong bg-sheet px-2 py-1 text-ink"
              value={into}
              onChange={(event) => {
                setInto(event.target.value)
                ask.reset()
              }}
            >
              <option value="">which course?</option>
              {others.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.code} {one.title}, {one.classSections.join(', ')}
                </option>
              ))}
            </select>
          </label>
          <div className="mt-3" role="status">
            <Problem error={ask.error} />
            {ask.data && (
              <>
                <p className="font-semibold">{ask.data.dry ? 'What it means' : 'Merged'}</p>
                <ul className="list-disc pl-5">
                  {ask.data.consequences.map((one) => (
                    <li key={one}>{one}.</li>
                  ))}
                </ul>
              </>
            )}
          </div>
          <div className="mt-5 flex justify-end gap-2">
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
            <Button
              shape={ask.data?.dry ? 'plain' : 'main'}
              disabled={into === '' || ask.isPending}
              onClick={() => ask.mutate(true)}
            >
              See what it means
            </Button>
            <Button
              shape="main"
              disabled={!ask.data?.dry || ask.isPending}
              onClick={() => ask.mutate(false)}
            >
              Merge
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
