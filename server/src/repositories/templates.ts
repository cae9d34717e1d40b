import type { Pool } from 'mysql2/promise'
import { applyEdit, policyProblems, readDocument, Template, type EditProblem, type Problem, type TemplateEdit } from '@wickerframe/core'
import type { TemplateDraft, TemplateSummary } from '@wickerframe/contract'
import { change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { recordAudit } from './audit.ts'
import { instantOfRow } from './moment.ts'
import type { Person } from './people.ts'

interface TemplateRow {
  id: number
  template_key: string
  draft: string
  draft_revision: number
  edits_since: number
  saved_at: string
}

const readStored = (what: string, text: string): Template => {
  const read = readDocument(Template, JSON.parse(text))
  if (!read.ok) throw new Error(`${what} is stored in a form that cannot be read: ${JSON.stringify(read.problems[0])}`)
  return read.value
}

export const draftOf = (template: Template): Template => {
  const { version: _, ...draft } = template
  return draft
}

/** Brings in a template document as a new draft; `taken` when its key is. */
export const addTemplate = async (pool: Pool, template: Template, who: string): Promise<'added' | 'taken'> =>
  inTransaction(pool, async (database) => {
    if (await firstRow(database, 'SELECT id FROM templates WHERE template_key = ?', [template.key])) return 'taken'
    await change(database, 'INSERT INTO templates (template_key, title, draft, saved_at) VALUES (?, ?, ?, NOW(3))', [template.key, template.title, JSON.stringify(draftOf(template))])
    await recordAudit(database, { who, what: 'template brought in', subject: template.key })
    return 'added'
  })

const mayEdit = async (database: Database, id: number, person: Person): Promise<boolean> =>
  person.role === 'designer' || person.role === 'administrator' ||
  (person.role === 'contributor' && (await firstRow(database, 'SELECT 1 AS yes FROM template_contributors WHERE template_id = ? AND person_id = ?', [id, person.id])) !== null)

const summaryOf = async (database: Database, row: TemplateRow, person: Person): Promise<TemplateSummary> => {
  const draft = JSON.parse(row.draft) as { title: string; summary?: string }
  const rows = await rowsOf<{ number: number; releasedAt: string; by: string; note: string }>(
    database,
    'SELECT number, released_at AS releasedAt, released_by AS `by`, note FROM template_versions WHERE template_id = ? ORDER BY number DESC',
    [row.id],
  )
  const versions = rows.map((version) => ({ ...version, releasedAt: instantOfRow(version.releasedAt) }))
  const courses = await firstRow<{ count: number }>(database, 'SELECT COUNT(*) AS count FROM courses WHERE template_id = ?', [row.id])
  return {
    key: row.template_key, title: draft.title, summary: draft.summary ?? '', versions, draftRevision: row.draft_revision, changesSinceRelease: row.edits_since, courses: Number(courses?.count),
    mayEdit: await mayEdit(database, row.id, person), mayRelease: person.role === 'designer' || person.role === 'administrator',
  }
}

const columns = 'id, template_key, draft, draft_revision, edits_since, saved_at'

export const listTemplates = async (database: Database, person: Person): Promise<TemplateSummary[]> => {
  const rows = await rowsOf<TemplateRow>(database, `SELECT ${columns} FROM templates ORDER BY title`)
  return Promise.all(rows.map((row) => summaryOf(database, row, person)))
}

export const findDraft = async (database: Database, key: string, person: Person): Promise<TemplateDraft | null> => {
  const row = await firstRow<TemplateRow>(database, `SELECT ${columns} FROM templates WHERE template_key = ?`, [key])
  return row && { ...(await summaryOf(database, row, person)), draft: readStored(`draft of ${key}`, row.draft), savedAt: instantOfRow(row.saved_at) }
}

export interface Version {
  templateId: number
  number: number
  digest: string
  document: Template
}

export const findVersion = async (database: Database, key: string, number: number): Promise<Version | null> => {
  const row = await firstRow<{ template_id: number; document: string; digest: string }>(
    database,
    'SELECT template_versions.template_id, template_versions.document, template_versions.digest FROM template_versions JOIN templates ON templates.id = template_versions.template_id WHERE templates.template_key = ? AND template_versions.number = ?',
    [key, number],
  )
  return row && { templateId: row.template_id, number, digest: row.digest, document: readStored(`${key}, version ${number}`, row.document) }
}

export const findVersionById = async (database: Database, templateId: number, number: number): Promise<Version | null> => {
  const row = await firstRow<{ document: string; digest: string }>(database, 'SELECT document, digest FROM template_versions WHERE template_id = ? AND number = ?', [templateId, number])
  return row && { templateId, number, digest: row.digest, document: readStored(`template ${templateId}, version ${number}`, row.document) }
}

export type EditOutcome =
  | { state: 'saved'; revision: number; draft: Template }
  | { state: 'missing' | 'not-allowed-to' }
  | { state: 'refused'; problem: EditProblem }
  | { state: 'bad-policy'; problems: Problem[] }

/**
 * Makes edits of a draft, all or none. They may be based on an older revision: only an edit of a field that somebody
 * else changed since is refused, with both values.
 */
export const editDraft = async (pool: Pool, key: string, edits: readonly TemplateEdit[], person: Person): Promise<EditOutcome> =>
  inTransaction(pool, async (database): Promise<EditOutcome> => {
    const row = await firstRow<TemplateRow>(database, `SELECT ${columns} FROM templates WHERE template_key = ? FOR UPDATE`, [key])
    if (!row) return { state: 'missing' }
    if (!(await mayEdit(database, row.id, person))) return { state: 'not-allowed-to' }
    let draft = readStored(`draft of ${key}`, row.draft)
    for (const edit of edits) {
      const next = applyEdit(draft, edit)
      if (!next.ok) return { state: 'refused', problem: next.problems }
      draft = next.value.template
    }
    const problems = policyProblems(draft)
    if (problems.length > 0) return { state: 'bad-policy', problems }
    await change(database, 'UPDATE templates SET draft = ?, title = ?, draft_revision = draft_revision + 1, edits_since = edits_since + ?, saved_at = NOW(3) WHERE id = ?', [JSON.stringify(draft), draft.title, edits.length, row.id])
    await recordAudit(database, { who: person.email, what: 'draft edited', subject: key, to: edits })
    return { state: 'saved', revision: row.draft_revision + 1, draft }
  })

export type ReleaseOutcome = { state: 'released'; version: number } | { state: 'missing' } | { state: 'stale'; revision: number } | { state: 'nothing-new'; version: number }

/** Releases a draft as the next version. The revision the designer looked at must be the one that is released. */
export const releaseDraft = async (pool: Pool, key: string, revision: number, note: string, person: Person): Promise<ReleaseOutcome> =>
  inTransaction(pool, async (database): Promise<ReleaseOutcome> => {
    const row = await firstRow<TemplateRow>(database, `SELECT ${columns} FROM templates WHERE template_key = ? FOR UPDATE`, [key])
    if (!row) return { state: 'missing' }
    if (row.draft_revision !== revision) return { state: 'stale', revision: row.draft_revision }
    const last = await firstRow<{ number: number; document: string }>(database, 'SELECT number, document FROM template_versions WHERE template_id = ? ORDER BY number DESC LIMIT 1', [row.id])
    const draft = readStored(`draft of ${key}`, row.draft)
    if (last && digestOf(draftOf(JSON.parse(last.document) as Template)) === digestOf(draft)) return { state: 'nothing-new', version: last.number }
    const number = (last?.number ?? 0) + 1
    const document: Template = { ...draft, version: number }
    await change(database, 'INSERT INTO template_versions (template_id, number, document, digest, released_at, released_by, note) VALUES (?, ?, ?, ?, NOW(3), ?, ?)', [row.id, number, JSON.stringify(document), digestOf(document), person.email, note])
    await change(database, 'UPDATE templates SET edits_since = 0 WHERE id = ?', [row.id])
    await recordAudit(database, { who: person.email, what: 'version released', subject: `${key} ${number}` })
    return { state: 'released', version: number }
  })

export const letContribute = async (database: Database, key: string, email: string): Promise<void> => {
  await change(
    database,
    'INSERT IGNORE INTO template_contributors (template_id, person_id) SELECT templates.id, people.id FROM templates JOIN people WHERE templates.template_key = ? AND people.email = ?',
    [key, email],
  )
}
