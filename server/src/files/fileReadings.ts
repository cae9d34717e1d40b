import { anyOf, change, rowsOf, institutionNow, type Database } from '@wickerframe/storage'

/** Texts that were read of files, by what the files hold; null: a text cannot be read of it. Those that were not read are left out. */
export const fileReadings = async (
  database: Database,
  contents: readonly string[],
): Promise<Map<string, string | null>> => {
  if (contents.length === 0) return new Map()
  const any = anyOf([...contents])
  const rows = await rowsOf<{ content: string; words: string | null }>(
    database,
    `SELECT content, words
     FROM file_readings
     WHERE content IN ${any.sql}`,
    any.values,
  )
  return new Map(rows.map(({ content, words }) => [content, words]))
}

/** Remembers the text of a file. The same bytes always read the same, so that the first reading stays. */
export const keepReading = async (
  database: Database,
  content: string,
  words: string | null,
): Promise<void> => {
  await change(
    database,
    `INSERT IGNORE INTO file_readings (content, words, read_at)
     VALUES (?, ?, ${institutionNow})`,
    [content, words],
  )
}

/** Forgets some of the texts that were read longest ago; those that are still shown are read again. @returns how many */
export const forgetReadings = async (database: Database, days: number): Promise<number> =>
  (
    await change(
      database,
      `DELETE FROM file_readings
       WHERE read_at < TIMESTAMPADD(DAY, ?, ${institutionNow})
       LIMIT 200`,
      [-days],
    )
  ).affected
