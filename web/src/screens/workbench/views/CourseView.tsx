import {
  everyExpected,
  isHeld,
  localDateOf,
  type ExpectedCourse,
  type Part,
} from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'

/** The outline turned into one course: names, weeks and dates as that course gets them. */
export const CourseView = ({
  expected,
  mayEdit,
  canDiffer,
  onOpen,
  onDiffer,
}: {
  expected: ExpectedCourse | null
  mayEdit: boolean
  canDiffer: (part: Part) => boolean
  onOpen: (key: string) => void
  onDiffer: (module: string, number: number) => void
}) => {
  if (!expected) return <p className="py-4 text-ink-2">Choose a course that the template fits.</p>
  const depths = new Map<string, number>()
  return (
    <ul
      className="h-[max(20rem,calc(100vh-17rem))] overflow-y-auto"
      aria-label={`As ${expected.facts.code}`}
    >
      {[expected.home, ...everyExpected(expected.parts)].map((part) => {
        const depth = part.parent === null ? 0 : (depths.get(part.parent) ?? 0) + 1
        depths.set(part.instance, depth)
        if (part.inBreak && part.kind !== 'module') return null
        return (
          <li
            key={part.instance}
            className={`grid grid-cols-[minmax(0,1fr)_5rem_11rem] gap-3 border-b border-line px-2 py-1 ${part.kind === 'module' ? 'bg-band font-semibold' : ''}`}
            style={{ paddingLeft: 8 + depth * 18 }}
          >
            <span className="flex min-w-0 items-baseline gap-3">
              <button
                type="button"
                className="truncate text-left"
                onClick={() =>
                  onOpen(
                    part.exception !== null && part.kind === 'module' ? part.exception : part.key,
                  )
                }
              >
                {part.name}
              </button>
              {part.exception !== null && (
                <span className="shrink-0 border-b border-dotted border-ink text-[12px] font-normal">
                  different here
                </span>
              )}
              {mayEdit &&
                part.kind === 'module' &&
                part.repetition !== null &&
                part.exception === null &&
                part.repetitionNumber !== null &&
                canDiffer(part.definition) && (
                  <Button
                    shape="word"
                    className="shrink-0 py-0! text-[12.5px] font-normal"
                    onClick={() =>
                      onDiffer(part.key, Number(part.values.number ?? part.repetitionNumber))
                    }
                  >
                    make this one different
                  </Button>
                )}
            </span>
            <span className="font-mono text-[12px] font-normal">
              {part.audience === 'students' ? part.strength : part.audience}
            </span>
            <span className="font-normal text-ink-2">
              {part.dueAt
                ? `${isHeld(part) ? 'held' : 'due'} ${localDateOf(part.dueAt, expected.facts.term.timeZone)}`
                : part.kind === 'module' && part.week
                  ? `${part.week.first} on`
                  : ''}
            </span>
          </li>
        )
      })}
    </ul>
  )
}
