import {
  calendarDocument,
  evenUnits,
  instructionalWeeks,
  TermDocument,
  weekdays,
  type Weekday,
} from '@wickerframe/core'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { numberOption, orUnusable, wanted } from '../given.ts'
import { Unusable } from '../unusable.ts'

const meetingDaysOf = (value: string | undefined): Weekday[] =>
  (value ?? '')
    .split(',')
    .filter((word) => word.trim() !== '')
    .map((word) => {
      const weekday = weekdays.find((weekday) => weekday === word.trim().toLowerCase())
      if (weekday === undefined)
        throw new Unusable(
          `--meeting-days: found ${word}; expected weekdays with commas between them: ${weekdays.join(',')}`,
        )
      return weekday
    })

export const calendar: Command = async (values, streams) => {
  const { out } = streams
  const file = wanted('term', values.term)
  const term = orUnusable(file, await readJsonFile(file, TermDocument, streams))
  const nextFile = values['next-term']
  const nextTerm =
    nextFile === undefined
      ? undefined
      : orUnusable(nextFile, await readJsonFile(nextFile, TermDocument, streams))
  const { session } = values
  if (session !== undefined && !term.sessions.some(({ code }) => code === session))
    throw new Unusable(
      `--session: found ${session}; expected ${term.sessions.map((session) => session.code).join(', ') || 'none, as the term has no sessions'}`,
    )
  const count = numberOption('weeks', values.weeks, 1, 120)
  const available = instructionalWeeks({ term, nextTerm, session }).filter(
    (week) => week.number > 0,
  ).length
  if (count !== undefined && count > available)
    throw new Unusable(
      `--weeks: found ${count}; expected at most ${available}, the weeks of ${session ? `session ${session}` : term.title}`,
    )
  const units = numberOption('units', values.units, 1, 60) ?? 4
  const document = calendarDocument({
    term,
    nextTerm,
    session,
    count,
    units: (weeks) => evenUnits(weeks, units),
    meetingDays: meetingDaysOf(values['meeting-days']),
    availability: {
      opensDaysBefore: numberOption('opens-before', values['opens-before'], 0, 366) ?? 0,
      closesDaysAfter: numberOption('closes-after', values['closes-after'], 0, 1000) ?? 21,
    },
  })
  out(`${JSON.stringify(document, null, 2)}\n`)
  return exitCode.fine
}
