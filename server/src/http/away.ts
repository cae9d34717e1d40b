import { isDatabaseAway } from '@wickerframe/storage'
import { HttpProblem } from './problem.ts'

const againSeconds = 5
const healthMilliseconds = 3000

/** What is answered, on every route, while the database is away. */
export const databaseAway = (): HttpProblem =>
  new HttpProblem(
    503,
    'away',
    `the database is away; nothing was changed, what you typed is still here: try again in ${againSeconds} seconds`,
    {},
    againSeconds,
  )

/** @throws HttpProblem 503 where it fails as a database that is away does, or says nothing for three seconds */
export const mustSay = async <T>(asked: Promise<T>): Promise<T> => {
  let clock: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    clock = setTimeout(() => reject(databaseAway()), healthMilliseconds)
  })
  try {
    return await Promise.race([asked, late])
  } catch (cause) {
    throw isDatabaseAway(cause) ? databaseAway() : cause
  } finally {
    clearTimeout(clock)
    asked.catch(() => undefined)
  }
}
