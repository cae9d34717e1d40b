import { hasAnswered, type Situation } from './handler.ts'

/** Answers with an iCalendar file, stamped at noon of today. @param name of the file, without its ending */
export const calendarOut = (
  { response, today }: Situation,
  name: string,
  write: (stampedAt: string) => string,
): typeof hasAnswered => {
  response
    .attachment(`${name}.ics`)
    .type('text/calendar; charset=utf-8')
    .send(write(`${today}T12:00:00Z`))
  return hasAnswered
}
