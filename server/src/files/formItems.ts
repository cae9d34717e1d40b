import {
  blockInPlace,
  everyItem,
  filesLedToBy,
  homePageKey,
  type Block,
  type Template,
} from '@wickerframe/core'
import { firstRow, type Database } from '@wickerframe/storage'
import { recordedIdentity } from '../rollouts/bases.ts'
import { versionById } from '../templates/versions.ts'

/** Keys of the parts whose files are judged by what they say: forms to be filled in, and documents with fields, also where a page leads to them. */
const partsRead = (template: Template): ReadonlySet<string> => {
  const filled = new Set(
    template.files.flatMap(({ key, fields }) => (fields.length > 0 ? [key] : [])),
  )
  const leadsToOne = (blocks: readonly Block[]): boolean =>
    blocks.some((block) => {
      const shown = blockInPlace(block, template.keptBlocks)
      return shown !== null && [...filesLedToBy(shown)].some((key) => filled.has(key))
    })
  return new Set([
    ...everyItem(template).flatMap(({ key, file, blocks }) =>
      (file?.key !== undefined && (file.left === 'theirs' || filled.has(file.key))) ||
      leadsToOne(blocks)
        ? [key]
        : [],
    ),
    ...(leadsToOne(template.home.blocks) ? [homePageKey] : []),
  ])
}

const heldTo = (database: Database, platformId: string) =>
  firstRow<{ id: number; template_id: number | null; version: number | null }>(
    database,
    `SELECT id, template_id, version
     FROM courses
     WHERE platform_id = ?`,
    [platformId],
  )

/** Which items of a course a check wants to know the text of. */
export interface FormItems {
  /** By the platform's id; null: it is not recorded which they are, so that it may be any. */
  ids: ReadonlySet<string> | null
}

/** Which items of a course are judged by what their files say; null where none is. @param platformId of the course */
export const formItems = async (
  database: Database,
  platformId: string,
): Promise<FormItems | null> => {
  const course = await heldTo(database, platformId)
  if (!course || course.template_id === null || course.version === null) return null
  const version = await versionById(database, course.template_id, course.version)
  const parts = version ? partsRead(version.document) : new Set<string>()
  if (parts.size === 0) return null
  const recorded = await recordedIdentity(database, course.id)
  const ids = [...recorded].flatMap(([id, { part }]) => (parts.has(part) ? [id] : []))
  return { ids: ids.length > 0 ? new Set(ids) : null }
}
