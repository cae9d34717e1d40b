import { anyOf, change, firstRow, institutionNow, type Database } from '@wickerframe/storage'
import type { ShownFile } from '@wickerframe/core'

/** Notes that a file was put in as an answer in a course, under the name that its content was held against. */
export const noteAnswerFile = async (
  database: Database,
  courseId: number,
  { name, content }: ShownFile,
  isNew: boolean,
): Promise<void> => {
  await change(
    database,
    `INSERT INTO answer_files (course_id, content, file_name, for_answers_only, put_at)
     VALUES (?, ?, ?, ?, ${institutionNow})
     ON DUPLICATE KEY UPDATE put_at = ${institutionNow}`,
    [courseId, content, name, isNew],
  )
}

/** Whether a file was put in as an answer in this course, under this name. */
export const isAnswerFile = async (
  database: Database,
  courseId: number,
  { name, content }: ShownFile,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT 1 AS found
     FROM answer_files
     WHERE course_id = ? AND content = ? AND file_name = ?`,
    [courseId, content, name],
  )) !== null

/** How many files were put in as answers in a course within a day. */
export const answerFilesOfDay = async (database: Database, courseId: number): Promise<number> =>
  (
    await firstRow<{ files: number }>(
      database,
      `SELECT COUNT(*) AS files
       FROM answer_files
       WHERE course_id = ? AND put_at > TIMESTAMPADD(DAY, -1, ${institutionNow})`,
      [courseId],
    )
  )?.files ?? 0

/** What a designer put in as well, or released with a template, is the college’s, and stays. */
export const keepForGood = async (
  database: Database,
  contents: readonly string[],
): Promise<void> => {
  if (contents.length === 0) return
  const any = anyOf([...contents])
  await change(
    database,
    `UPDATE answer_files
     SET for_answers_only = 0
     WHERE content IN ${any.sql}`,
    any.values,
  )
}

const longAgo = `TIMESTAMPADD(DAY, ?, ${institutionNow})`

/** Of bytes that serve something else, it is forgotten that they were an answer. */
const forgetOthers = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM answer_files
     WHERE for_answers_only = 0 AND put_at < ${longAgo}
     LIMIT 200`,
    [-days],
  )
const forgetBytes = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM file_contents
     WHERE content IN (
       SELECT content
       FROM answer_files
       GROUP BY content
       HAVING MAX(for_answers_only) = 1 AND MAX(put_at) < ${longAgo}
     )
     LIMIT 50`,
    [-days],
  )
const forgetGone = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM answer_files
     WHERE put_at < ${longAgo}
       AND NOT EXISTS (
         SELECT 1
         FROM file_contents
         WHERE file_contents.content = answer_files.content
       )
     LIMIT 200`,
    [-days],
  )

/** Forgets some of what was put in as answers so many days ago: the platform has it. Bytes that serve something else stay. */
export const forgetAnswerFiles = async (database: Database, days: number): Promise<void> => {
  await forgetOthers(database, days)
  await forgetBytes(database, days)
  await forgetGone(database, days)
}
