import { useQuery } from '@tanstack/react-query'
import {
  readinessByDay,
  type EditDay,
  type FindingSpell,
  type ReadinessChange,
} from '@wickerframe/core'
import { call } from '../../api/client.ts'
import { plural, Problem } from '../../controls/controls.tsx'
import { ReadinessChart } from '../conformance/history/ReadinessChart.tsx'
import { spellsByFinding } from './spells.ts'

const mostShown = 40

const when = ({ came, went }: FindingSpell): string =>
  went === null ? `since ${came}` : went === came ? `on ${came}` : `${came} until ${went}`

/** Open musts day by day, to be drawn as what is not in order. */
const mustsByDay = (changes: readonly ReadinessChange[], from: string, until: string) =>
  readinessByDay([changes], from, until).map((day) => ({
    ...day,
    ready: 0,
    asFarAsSeen: 0,
    notReady: day.openMusts,
  }))

const editedWords = (days: readonly EditDay[]): string => {
  const last = days.at(-1)
  return last
    ? `Since something was deployed to it, people edited ${plural(
        days.reduce((sum, { edits }) => sum + edits, 0),
        'thing',
      )} on ${plural(days.length, 'day')}, last on ${last.day}.`
    : 'Nobody was seen to edit it since something was deployed to it.'
}

/** How a course stood day by day, how long it took to be ready, and which findings came, went and came back. */
export const CourseStanding = ({ courseId, today }: { courseId: number; today: string }) => {
  const standing = useQuery({
    queryKey: ['course', String(courseId), 'standing'],
    queryFn: () => call('courseStanding', { at: { course: courseId } }),
  })
  const { data } = standing
  if (!data) return <Problem error={standing.error} />
  const first = data.changes[0]
  if (!first)
    return <p className="py-2 text-ink-2">It was never checked as of the day it was checked on.</p>
  const findings = spellsByFinding(data.spells)
  return (
    <section className="mb-4">
      <h2 className="text-[17px]">Day by day</h2>
      <p className="mb-1 text-ink-2">
        It opened on {data.opening}.{' '}
        {data.daysToReady === null
          ? 'It was never ready since.'
          : data.daysToReady === 0
            ? 'It was ready then.'
            : `It was ready ${plural(data.daysToReady, 'day')} later.`}{' '}
        Drawn: how many musts were open.
      </p>
      <ReadinessChart
        title="Open musts of this course"
        days={mustsByDay(data.changes, first.day, today < first.day ? first.day : today)}
        width={900}
        says={({ notReady }) => plural(notReady, 'open must')}
      />
      {data.deployed && <p className="text-ink-2">{editedWords(data.edits)}</p>}
      {findings.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer text-tide underline">
            {plural(findings.length, 'finding')}: when each came and went
          </summary>
          <ul className="mt-1">
            {findings.slice(0, mostShown).map(({ fingerprint, message, spells }) => (
              <li key={fingerprint} className="border-t border-line py-1">
                {message}{' '}
                <span className="text-ink-2">
                  {spells.map(when).join('; ')}
                  {spells.length > 1 && ' (came back)'}
                </span>
              </li>
            ))}
            {findings.length > mostShown && (
              <li className="text-ink-2">and {findings.length - mostShown} more</li>
            )}
          </ul>
        </details>
      )}
    </section>
  )
}
