import { inTransaction } from '@wickerframe/storage'
import type { Pool } from 'mysql2/promise'
import type { Connector } from '../connector/client.ts'
import { createRunIn } from '../runs/newRun.ts'
import {
  changedCourses,
  feedUnderWay,
  holdFeed,
  keepReaderName,
  moveFeed,
  positionOf,
} from './feed.ts'

/** Who begins the runs that nobody asked for. */
export const platformItself = 'the platform'

/** While so many are still to be read, the platform is not asked for more. */
const mostUnderWay = 100

/**
 * Asks the platform once what changed since we asked last, and has those courses of ours read and checked whose revision is another
 * than the one we read. While much of what was begun before is under way the platform is not asked: however fast
 * it says that things change, no more is begun than can be done. A cursor that it does not know, or that lies behind the one it
 * gave, begins the list anew: it was brought back as it stood before.
 * @param holder this worker; of several, one asks
 */
export const followPlatform = async (
  pool: Pool,
  connector: Pick<Connector, 'list'>,
  holder: string,
): Promise<void> => {
  if (!(await holdFeed(pool, holder))) return
  if ((await feedUnderWay(pool, platformItself)) >= mostUnderWay) return
  const position = await positionOf(pool, holder)
  if (position === null) return
  const answer = await connector.list(position)
  if (answer.state === 'refused' && answer.status === 400 && position > 0)
    await moveFeed(pool, holder, position, 0)
  if (answer.state !== 'answered') return
  const { courses, cursor, readerName } = answer.value
  // What it does not say is not taken for what it does not have.
  if (readerName !== undefined) await keepReaderName(pool, holder, readerName)
  if (cursor === position && courses.length === 0) return
  await inTransaction(pool, async (database) => {
    if (!(await moveFeed(database, holder, position, cursor < position ? 0 : cursor))) return
    const changed = await changedCourses(database, courses)
    if (changed.length > 0)
      await createRunIn(database, {
        kind: 'check',
        title: `${changed.length} ${changed.length === 1 ? 'course' : 'courses'} changed on the platform`,
        by: platformItself,
        asOf: null,
        templateId: null,
        version: null,
        tasks: changed.map((courseId) => ({ courseId })),
      })
  })
}
