import type { Database } from '@wickerframe/storage'
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

/** A released version as it is expected now: it never changes, but for the wording of house texts that the library keeps. */
export const versionById = async (
  database: Database,
  templateId: number,
  number: number,
): Promise<Version | null> => {
  const stamp = await wordingStamp(database)
  const key = `${templateId}/${number}`
  const known = kept.get(key)
  if (known?.stamp === stamp) return known.version
  const version = await findVersionById(database, templateId, number)
  if (!version) return null
  if (kept.size >= most) kept.delete(kept.keys().next().value ?? '')
  kept.set(key, { stamp, version })
  return version
}
