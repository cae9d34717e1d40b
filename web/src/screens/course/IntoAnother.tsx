import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import { Link } from 'react-router'
import type { CourseDetail } from '@wickerframe/contract'
import { call } from '../../api/client.ts'
import { useCourses } from '../../api/queries.ts'
import { Button, Problem } from '../../controls/controls.tsx'
import { tellApart } from '../../controls/tellApart.ts'

/** Asking what something means, or doing it on the preview of that digest. */
interface Act {
  dry: boolean
  shown: string | null
}

/** Merges a course into another one, with what that means shown first. */
export const IntoAnother = ({ course }: { course: CourseDetail }) => {
  const client = useQueryClient()
  const [open, setOpen] = useState(false)
  const [into, setInto] = useState('')
  const courses = useCourses()
  const ask = useMutation({
    mutationFn: ({ dry, shown }: Act) =>
      call('mergeCourse', { at: { course: course.id }, body: { into: Number(into), dry, shown } }),
    onSuccess: (report) => (report.dry ? undefined : client.invalidateQueries()),
  })
  const others = (courses.data ?? [])
    .filter(
      ({ id, term, status }) =>
        id !== course.id &&
        term === course.term &&
        (status === 'teaching' || status === 'preparing'),
    )
    .sort((a, b) => Number(b.code === course.code) - Number(a.code === course.code))
  const apart = tellApart(others)
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
              {others.map((other) => (
                <option key={other.id} value={other.id}>
                  {other.code} {other.title}, {apart.get(other.platformId)}
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
                  {ask.data.consequences.map((consequence) => (
                    <li key={consequence}>{consequence}.</li>
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
              onClick={() => ask.mutate({ dry: true, shown: null })}
            >
              See what it means
            </Button>
            <Button
              shape="main"
              disabled={!ask.data?.dry || ask.isPending}
              onClick={() => ask.mutate({ dry: false, shown: ask.data?.digest ?? null })}
            >
              Merge
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

/** What a course was merged into, or what was merged into it, with a way back. */
export const Merges = ({ course, may }: { course: CourseDetail; may: boolean }) => {
  const client = useQueryClient()
  const [asked, setAsked] = useState(false)
  const back = useMutation({
    mutationFn: (act: Act) => call('unmergeCourse', { at: { course: course.id }, body: act }),
    onSuccess: (report) => (report.dry ? undefined : client.invalidateQueries()),
  })
  if (!course.mergedInto && course.mergedHere.length === 0) return null
  return (
    <div className="mb-2 border-l-4 border-tide bg-tide-soft px-3 py-2">
      {course.mergedInto && (
        <p>
          Merged into{' '}
          <Link
            className="text-tide underline underline-offset-2"
            to={`/courses/${course.mergedInto.id}`}
          >
            {course.mergedInto.name}
          </Link>
          .{' '}
          {may && !asked && (
            <Button
              shape="word"
              className="py-0!"
              onClick={() => {
                setAsked(true)
                back.mutate({ dry: true, shown: null })
              }}
            >
              take the merge back
            </Button>
          )}
        </p>
      )}
      {course.mergedHere.length > 0 && (
        <p>
          Holds the class sections of{' '}
          {course.mergedHere.map(({ id, name }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link className="text-tide underline underline-offset-2" to={`/courses/${id}`}>
                {name}
              </Link>
            </span>
          ))}
          , merged into it.
        </p>
      )}
      {asked && back.data?.dry && (
        <div role="status">
          <p className="mt-1 font-semibold">What taking it back means</p>
          <ul className="list-disc pl-5">
            {back.data.consequences.map((consequence) => (
              <li key={consequence}>{consequence}.</li>
            ))}
          </ul>
          <p className="mt-1 flex gap-3">
            <Button
              shape="main"
              disabled={back.isPending}
              onClick={() => back.mutate({ dry: false, shown: back.data?.digest ?? null })}
            >
              Take the merge back
            </Button>
            <Button onClick={() => setAsked(false)}>Leave it merged</Button>
          </p>
        </div>
      )}
      <Problem error={back.error} />
    </div>
  )
}
