import { Popover } from 'radix-ui'
import { useMemo, useState } from 'react'
import type { CourseSummary } from '@wickerframe/contract'
import { Button, plural } from '../../controls/controls.tsx'
import { holdsWords, SearchList } from '../../controls/SearchList.tsx'
import { tellApart } from '../../controls/tellApart.ts'

const mostShown = 60

/** What a course may be found by: its code, title, class sections and who teaches it. */
const textOf = (course: CourseSummary, apart: string): string =>
  [course.code, course.title, apart, ...course.instructors.map(({ name }) => name)].join(' ')

/** Which of the courses that a template is meant for it is worked out for: found by code, title, class section or teacher. */
export const CoursePick = ({
  fitting,
  course,
  onChoose,
}: {
  fitting: readonly CourseSummary[]
  course: string
  onChoose: (course: string) => void
}) => {
  const [open, setOpen] = useState(false)
  const apart = useMemo(() => tellApart(fitting), [fitting])
  const sections = ({ platformId }: CourseSummary): string => apart.get(platformId) ?? ''
  const chosen = fitting.find(({ id }) => String(id) === course)
  return (
    <span className="inline-flex items-baseline gap-1 text-ink-2">
      Worked out for
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger asChild>
          <Button
            className="max-w-72 truncate py-1! font-normal!"
            disabled={fitting.length === 0}
            aria-haspopup="listbox"
          >
            {chosen ? `${chosen.code} ${chosen.title}, ${sections(chosen)}` : 'no course fits'} ▾
          </Button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={2}
            collisionPadding={8}
            aria-label="Worked out for which course"
            className="z-30 w-[30rem] max-w-[95vw] border border-line-strong bg-sheet p-3"
          >
            <SearchList
              label={`Of ${plural(fitting.length, 'course')} it is meant for`}
              placeholder="code, title, class section or teacher"
              listLabel="Courses"
              none="No course of these is called that."
              chosen={course}
              find={(typed) =>
                fitting
                  .filter((one) => holdsWords(textOf(one, sections(one)), typed))
                  .slice(0, mostShown)
              }
              idOf={({ id }) => String(id)}
              draw={(one) => (
                <>
                  {one.code} {one.title}{' '}
                  <span className="text-ink-3">
                    {[
                      sections(one),
                      plural(one.weeks, 'week'),
                      ...one.instructors.slice(0, 1).map(({ name }) => name),
                    ].join(' · ')}
                  </span>
                </>
              )}
              onChoose={({ id }) => {
                setOpen(false)
                onChoose(String(id))
              }}
              onClose={() => setOpen(false)}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </span>
  )
}
