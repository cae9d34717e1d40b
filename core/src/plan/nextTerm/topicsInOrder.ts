import { instructionalWeeks, type Week } from '../../calendar/index.ts'
import type { Facts } from '../../course/index.ts'

/** What of a course's facts says which weeks it has. */
export type WeeksOf = Pick<Facts, 'term' | 'nextTerm' | 'session' | 'weeks'>

/** Weeks of a course in which there is class, in order: a pause has no turn. */
const teachingWeeks = ({ term, nextTerm, session, weeks }: WeeksOf): Week[] =>
  instructionalWeeks({ term, nextTerm, session, count: weeks }).filter(
    (week) => week.number > 0 && week.breakName === null,
  )

/**
 * Topics of an earlier course by the weeks of a new one: the topic of the third week of class goes to the third week of
 * class, wherever the pauses of both lie.
 * @param topics by the number of the week, as in the facts of the earlier course
 * @returns topics by the number of the week in the new course, and those that find no week there
 */
export const topicsInOrder = (
  topics: Readonly<Record<string, string>>,
  from: WeeksOf,
  to: WeeksOf,
): { topics: Record<string, string>; left: { week: number; topic: string }[] } => {
  const turns = teachingWeeks(to)
  const placed: Record<string, string> = {}
  const left: { week: number; topic: string }[] = []
  const order = new Map(teachingWeeks(from).map((week, i) => [week.number, i]))
  for (const [number, topic] of Object.entries(topics)) {
    const turn = order.get(Number(number))
    const week = turn === undefined ? undefined : turns[turn]
    if (week) placed[String(week.number)] = topic
    else left.push({ week: Number(number), topic })
  }
  return { topics: placed, left: left.sort((a, b) => a.week - b.week) }
}
