import { firstRow, type Database } from '@wickerframe/storage'
import { findVersionById, type Version } from '../repositories/templates.ts'

const kept = new Map<string, { stamp: string; version: Version }>()
const most = 60

/** A released version by its template's key. */
export const versionByKey = async (
  database: Database,
  template: string,
  number: number,
): Promise<Version | null> => {
  const found = await firstRow<{ id: number }>(
    database,
    `SELECT id
     FROM templates
     WHERE template_key = ?`,
    [template],
  )
  return found && versionById(database, found.id, number)
}

/** A released version as it is expected now: it never changes, but for the wording of house texts that the library keeps. */
export const versionById = async (
  database: Database,
  templateId: number,
  number: number,
): Promise<Version | null> => {
  const wording = await firstRow<{ stamp: string | null }>(
    database,
    `SELECT CONCAT(COUNT(*), ':', SUM(revision)) AS stamp
     FROM library_entries
     WHERE kind = 'house-text'`,
  )
  const stamp = wording?.stamp ?? ''
  const key = `${templateId}/${number}`
  const known = kept.get(key)
  if (known?.stamp === stamp) return known.version
  const version = await findVersionById(database, templateId, number)
  if (!version) return null
  if (kept.size >= most) kept.delete(kept.keys().next().value ?? '')
  kept.set(key, { stamp, version })
  return version
}
