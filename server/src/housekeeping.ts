import type { Pool } from 'mysql2/promise'
import { collectBodies, coursesToTidy, tidyCourse } from './snapshots/bodyCollector.ts'
import { forgetAnswerFiles } from './fillIn/answerFiles.ts'
import { forgetReadings } from './files/fileReadings.ts'
import { forgetOld, type Retention } from './retention.ts'
import { forgetOldDevices, removeEndedSessions } from './people/sessions.ts'
import { forgetOldLinks } from './people/links.ts'
import { forgetUnfinished, inTransaction } from '@wickerframe/storage'
import type { InstitutionDay } from './start/clocks.ts'
import { tellOfEnds } from './waivers/tellOfEnds.ts'
import { forgetOldTries } from './people/signInTries.ts'

const coursesAtOnce = 10
const bodiesAtOnce = 500
/** Texts of files are what people wrote: they are not kept for longer than they serve. */
const daysOfReadings = 400
/** By then the platform has what was put in as an answer, or nobody sent it. */
const daysOfAnswerFiles = 30

/** A little of what has to be done now and then: names and bodies that nobody needs any more go, some at a time. */
export const keepHouse = async (
  pool: Pool,
  keep: Retention,
  today: InstitutionDay,
): Promise<void> => {
  const keptHours = keep.bodies * 24
  for (const courseId of await coursesToTidy(pool, coursesAtOnce, keptHours))
    await tidyCourse(pool, courseId)
  await collectBodies(pool, bodiesAtOnce, keptHours)
  await forgetUnfinished(pool, 24)
  await forgetReadings(pool, daysOfReadings)
  await forgetAnswerFiles(pool, daysOfAnswerFiles)
  await removeEndedSessions(pool)
  await forgetOldDevices(pool)
  await forgetOldTries(pool)
  await forgetOldLinks(pool)
  await forgetOld(pool, keep)
  await inTransaction(pool, (database) => tellOfEnds(database, today))
}
