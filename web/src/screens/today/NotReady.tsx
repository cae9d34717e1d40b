import { Link } from 'react-router'
import { formatDate } from '@wickerframe/core'
import type { NotReadyLine } from '@wickerframe/contract'
import { plural, Sentence } from '../../controls/controls.tsx'
import { CourseLink, Sections } from '../../controls/CourseName.tsx'

const dayWords = 'EEE d MMM'
/** A day as people say it, such as `Mon 21 Sep`. */
export const dayInWords = (date: string): string => formatDate(date, dayWords)

/** What is to be done in a course, in a word or two. */
const act = ({ mends, toRaise }: NotReadyLine): string =>
  mends > 0 ? `mend ${mends}` : toRaise > 0 ? `raise ${toRaise}` : 'follow it up'

/** A course that is not ready: what students meet first, by when, and the way to mending it. */
export const NotReady = ({ line, apart }: { line: NotReadyLine; apart: boolean }) => (
  <li className="grid grid-cols-[18.5rem_minmax(0,1fr)_6.5rem_4.5rem] items-baseline gap-x-4 py-1.5 max-lg:grid-cols-1">
    <div className="min-w-0">
      <p className="truncate">
        <CourseLink course={line} to="?strength=must" />
      </p>
      <p className="text-ink-3">
        <Sections course={line} apart={apart} /> · {line.owner || 'nobody teaches it'}
      </p>
    </div>
    <p className="line-clamp-2">
      <Sentence text={line.first} strength="must" />
    </p>
    <div>
      <p className={line.by === null ? 'font-semibold text-rust' : 'text-ink-2'}>
        {line.by === null ? 'now' : `before ${dayInWords(line.by)}`}
      </p>
      <p className="text-ink-3">{plural(line.openMusts, 'open must')}</p>
    </div>
    <p className="text-right">
      <Link
        className="whitespace-nowrap text-tide underline underline-offset-2"
        to={`/courses/${line.id}?strength=must`}
      >
        {act(line)}
      </Link>
    </p>
  </li>
)
