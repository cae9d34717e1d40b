import type { Template } from '@wickerframe/core'
import { anyOf, rowsOf, type Database } from '@wickerframe/storage'

/** Files of a template whose bytes are not kept here, by name: a template that came from elsewhere brings only what is known of them. */
export const filesNotKept = async (database: Database, { files }: Template): Promise<string[]> => {
  if (files.length === 0) return []
  const any = anyOf(files.map(({ content }) => content))
  const rows = await rowsOf<{ content: string }>(
    database,
    `SELECT content
     FROM file_contents
     WHERE content IN ${any.sql}`,
    any.values,
  )
  const kept = new Set(rows.map(({ content }) => content))
  return files.filter(({ content }) => !kept.has(content)).map(({ fileName }) => fileName)
}
