import { firstRow, type Database } from '@wickerframe/storage'
import { wordingStamp } from '../library/library.ts'
import { findTemplateId, findVersionById, type Version } from './templates.ts'

const kept = new Map<string, { stamp: string; version: Version }>()
const most = 60

/** A released version by its template's key. */
export const versionByKey = async (
  database: Database,
  template: string,
  number: number,
): Promise<Version | null> => {
  const id = await findTemplateId(database, template)
  return id === null ? null : versionById(database, id, number)
}

/**
 * A released version as it is expected now: it never changes, but for the wording of house texts that the library keeps. One that is
 * kept is held against the database each time: another one, restored or of a test, has others under the same numbers.
 */
export const versionById = async (
  database: Database,
  templateId: number,
  number: number,
): Promise<Version | null> => {
  const stamp = await stampOf(database, templateId, number)
  if (stamp === null) return null
  const key = `${templateId}/${number}`
  const known = kept.get(key)
  if (known?.stamp === stamp) return known.version
  const version = await findVersionById(database, templateId, number)
  if (!version) return null
  if (kept.size >= most) kept.delete(kept.keys().next().value ?? '')
  kept.set(key, { stamp, version })
  return version
}

/** Changes whenever what a version reads does; null when there is no such version. */
const stampOf = async (
  database: Database,
  templateId: number,
  number: number,
): Promise<string | null> =>
  (
    await firstRow<{ stamp: string }>(
      database,
      `SELECT CONCAT(digest, ' ', COALESCE(${wordingStamp}, '')) AS stamp
       FROM template_versions
       WHERE template_id = ? AND number = ?`,
      [templateId, number],
    )
  )?.stamp ?? null
