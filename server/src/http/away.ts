import { databaseTrouble, type DatabaseTrouble } from '@wickerframe/storage'
import { HttpProblem } from './problem.ts'

const againSeconds = 5
const healthMilliseconds = 3000

const sayings: Readonly<Record<DatabaseTrouble, string>> = {
  away: 'the database is away',
  full: 'the database has no room left on its disk, which is for an administrator to mend',
}

/** What is answered, on every route, while the database does nothing. */
export const databaseAway = (trouble: DatabaseTrouble = 'away'): HttpProblem =>
  new HttpProblem(
    503,
    'away',
    `${sayings[trouble]}; nothing was changed, what you typed is still here: try again in ${againSeconds} seconds`,
    {},
    againSeconds,
  )

/** The same failure, or what is answered where it says that the database does nothing. */
export const orAway = (cause: unknown): unknown => {
  const trouble = databaseTrouble(cause)
  return trouble === null ? cause : databaseAway(trouble)
}

/** @throws HttpProblem 503 where it fails as a database that is away does, or says nothing for three seconds */
export const mustSay = async <T>(asked: Promise<T>): Promise<T> => {
  let clock: NodeJS.Timeout | undefined
  const late = new Promise<never>((_, reject) => {
    clock = setTimeout(() => reject(databaseAway()), healthMilliseconds)
  })
  try {
    return await Promise.race([asked, late])
  } catch (cause) {
    throw orAway(cause)
  } finally {
    clearTimeout(clock)
    asked.catch(() => undefined)
  }
}
