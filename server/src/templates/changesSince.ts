import { compareTemplates, shortHash, type Template } from '@wickerframe/core'
import { firstRow, type Database } from '@wickerframe/storage'

const known = new Map<string, number>()
const mostKnown = 1000

/**
 * In how much a draft differs from the last version, as a comparison of the two tells it: what was done and undone again is no change.
 * @param edits how many were made since; what counts while there is no version
 * @param versionOf finds one by its number
 */
export const changesSince = async (
  database: Database,
  templateId: number,
  draft: Template,
  edits: number,
  versionOf: (number: number) => Promise<{ document: Template } | null>,
): Promise<number> => {
  if (edits === 0) return 0
  const last = await firstRow<{ number: number; digest: string }>(
    database,
    `SELECT number, digest
     FROM template_versions
     WHERE template_id = ?
     ORDER BY number DESC
     LIMIT 1`,
    [templateId],
  )
  if (!last) return edits
  // Of what is compared, whatever database it is in: one that was restored has others under the same numbers.
  const key = `${last.digest} ${shortHash(JSON.stringify(draft))}`
  const before = known.get(key)
  if (before !== undefined) return before
  const version = await versionOf(last.number)
  if (!version) return edits
  const changes = compareTemplates(version.document, draft).length
  if (known.size >= mostKnown) known.clear()
  known.set(key, changes)
  return changes
}
