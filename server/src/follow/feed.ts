import { anyOf, change, firstRow, rowsOf, type Database } from '@wickerframe/storage'

const holdSeconds = 30

/** Takes or keeps the feed for one worker: of several, one asks the platform. Whoever does not come back loses it. */
export const holdFeed = async (database: Database, holder: string): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE platform_feed
       SET holder = ?, held_until = TIMESTAMPADD(SECOND, ${holdSeconds}, NOW(3))
       WHERE id = 1 AND (holder IS NULL OR holder = ? OR held_until < NOW(3))`,
      [holder, holder],
    )
  ).affected === 1

/** Where we are in the platform’s list of changes; null when somebody else holds it by now. */
export const positionOf = async (database: Database, holder: string): Promise<number | null> =>
  (
    await firstRow<{ position: number }>(
      database,
      `SELECT position
       FROM platform_feed
       WHERE id = 1 AND holder = ? AND held_until > NOW(3)`,
      [holder],
    )
  )?.position ?? null

/** Moves on in the list, unless somebody else did meanwhile. */
export const moveFeed = async (
  database: Database,
  holder: string,
  from: number,
  to: number,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE platform_feed
       SET position = ?
       WHERE id = 1 AND holder = ? AND position = ?`,
      [to, holder, from],
    )
  ).affected === 1

/** Keeps how the platform wants the first name of whoever reads a page; null: it puts none in. */
export const keepReaderName = async (
  database: Database,
  holder: string,
  readerName: string | null,
): Promise<void> => {
  await change(
    database,
    `UPDATE platform_feed
     SET reader_name = ?
     WHERE id = 1 AND holder = ? AND NOT reader_name <=> ?`,
    [readerName, holder, readerName],
  )
}

/** Courses of ours that stand under one of these revisions no more: those we have read, that are taught, and that nothing under way is about to read anyway. */
export const changedCourses = async (
  database: Database,
  listed: readonly { id: string; revision: string }[],
): Promise<number[]> => {
  const revisions = new Map(listed.map(({ id, revision }) => [id, revision]))
  const ids = [...revisions.keys()]
  const changed: number[] = []
  for (let from = 0; from < ids.length; from += listedAtOnce)
    for (const row of await readCourses(database, ids.slice(from, from + listedAtOnce)))
      if (revisions.get(row.platform_id) !== row.revision) changed.push(row.id)
  return changed
}
const listedAtOnce = 2000

const readCourses = (database: Database, platformIds: readonly string[]) => {
  const ids = anyOf(platformIds)
  return rowsOf<{ id: number; platform_id: string; revision: string }>(
    database,
    `SELECT courses.id, courses.platform_id, snapshots.revision
     FROM courses
     JOIN snapshots ON snapshots.course_id = courses.id
     WHERE courses.platform_id IN ${ids.sql}
       AND courses.status = 'teaching'
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         JOIN runs ON runs.id = tasks.run_id
         WHERE tasks.course_id = courses.id
           AND runs.state = 'running'
           AND (
             tasks.state = 'waiting'
               OR (runs.kind <> 'check' AND tasks.state IN ('at-work', 'sent'))
           )
       )
     ORDER BY courses.id`,
    ids.values,
  )
}

/** How many tasks that were begun for the feed have not ended. */
export const feedUnderWay = async (database: Database, by: string): Promise<number> =>
  (
    await firstRow<{ count: number }>(
      database,
      `SELECT COUNT(*) AS count
       FROM runs
       JOIN tasks ON tasks.run_id = runs.id
       WHERE runs.created_by = ?
         AND runs.state = 'running'
         AND tasks.state IN ('waiting', 'at-work')`,
      [by],
    )
  )?.count ?? 0
