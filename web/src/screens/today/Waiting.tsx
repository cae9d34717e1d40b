import { Link } from 'react-router'
import type { WaitingLine } from '@wickerframe/contract'
import { CourseName } from '../../controls/CourseName.tsx'
import { dayInWords } from './NotReady.tsx'

const on = (date: string | null): string => (date === null ? '' : ` ${dayInWords(date)}`)

const told: Readonly<
  Record<WaitingLine['what'], { says: (line: WaitingLine) => string; act: string; to?: string }>
> = {
  'waiver-asked': {
    says: ({ who }) => `${who} asks for a waiver:`,
    act: 'decide on it',
    to: '/conformance/waivers',
  },
  answer: { says: ({ who, says }) => `${who} answered “${says}” to:`, act: 'read it there' },
  'promise-passed': {
    says: (line) => `${line.who} promised it for${on(line.on)}, which has passed:`,
    act: 'ask again',
  },
  'waiver-ends': { says: (line) => `A waiver ends${on(line.on)}:`, act: 'look at it' },
}

/** What somebody of a course said or asked and waits for a designer, and the way to answering it. */
export const Waiting = ({ line, apart }: { line: WaitingLine; apart: boolean }) => {
  const { says, act, to = `/courses/${line.id}` } = told[line.what]
  return (
    <li className="grid grid-cols-[18.5rem_minmax(0,1fr)_6.5rem] items-baseline gap-x-4 py-1.5 max-lg:grid-cols-1">
      <p>
        <CourseName course={line} apart={apart} />
      </p>
      <p className="line-clamp-2">
        {says(line)} <span className="text-ink-2">{line.about}</span>
      </p>
      <p className="text-right">
        <Link className="whitespace-nowrap text-tide underline underline-offset-2" to={to}>
          {act}
        </Link>
      </p>
    </li>
  )
}
