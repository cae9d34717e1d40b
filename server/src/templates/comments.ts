import type { Pool } from 'mysql2/promise'
import type { TemplateComment } from '@wickerframe/contract'
import {
  change,
  firstRow,
  inTransaction,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { instantOfRow } from '../moment.ts'
import { findTemplateId } from './templates.ts'

interface CommentRow {
  id: number
  part: string | null
  answers_to: number | null
  text: string
  written_at: string
  written_by: string
  closed_at: string | null
  closed_by: string | null
}

/** Comments on a template, oldest first. */
export const listComments = async (
  database: Database,
  template: string,
): Promise<TemplateComment[]> => {
  const rows = await rowsOf<CommentRow>(
    database,
    `SELECT template_comments.id, template_comments.part, template_comments.answers_to,
       template_comments.text, template_comments.written_at, template_comments.written_by,
       template_comments.closed_at, template_comments.closed_by
     FROM template_comments
     JOIN templates ON templates.id = template_comments.template_id
     WHERE templates.template_key = ?
     ORDER BY template_comments.id`,
    [template],
  )
  return rows.map((row) => ({
    id: row.id,
    part: row.part,
    answersTo: row.answers_to,
    text: row.text,
    at: instantOfRow(row.written_at),
    by: row.written_by,
    closedAt: row.closed_at && instantOfRow(row.closed_at),
    closedBy: row.closed_by,
  }))
}

/** Adds a comment, or an answer to one of the same template. @returns its id; null when the template or the one answered is not there */
export const addComment = async (
  pool: Pool,
  template: string,
  comment: { part: string | null; answersTo: number | null; text: string },
  who: string,
): Promise<number | null> =>
  inTransaction(pool, async (database) => {
    const templateId = await findTemplateId(database, template)
    if (templateId === null) return null
    const answered =
      comment.answersTo === null
        ? null
        : await findAnswerable(database, templateId, comment.answersTo)
    if (comment.answersTo !== null && !answered) return null
    const part = answered ? answered.part : comment.part
    const id = await insertComment(database, templateId, { ...comment, part }, who)
    await recordAudit(database, { who, what: 'comment written', subject: template, to: comment })
    return id
  })

/** A comment that may be answered: one of the template that is itself no answer. */
const findAnswerable = (database: Database, templateId: number, id: number) =>
  firstRow<{ part: string | null }>(
    database,
    `SELECT part
     FROM template_comments
     WHERE id = ? AND template_id = ? AND answers_to IS NULL`,
    [id, templateId],
  )
const insertComment = async (
  database: Database,
  templateId: number,
  { part, answersTo, text }: { part: string | null; answersTo: number | null; text: string },
  who: string,
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO template_comments (template_id, part, answers_to, text, written_at, written_by)
       VALUES (?, ?, ?, ?, ${institutionNow}, ?)`,
      [templateId, part, answersTo, text, who],
    )
  ).id

/** Closes a comment or opens it again. @returns whether it is there */
export const closeComment = async (
  pool: Pool,
  template: string,
  id: number,
  closed: boolean,
  who: string,
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const templateId = await findTemplateId(database, template)
    if (templateId === null || !(await findAnswerable(database, templateId, id))) return false
    await (closed ? markClosed(database, id, who) : markOpen(database, id))
    await recordAudit(database, {
      who,
      what: closed ? 'comment closed' : 'comment opened again',
      subject: `${template} ${id}`,
    })
    return true
  })

const markClosed = (database: Database, id: number, who: string) =>
  change(
    database,
    `UPDATE template_comments
     SET closed_at = ${institutionNow}, closed_by = ?
     WHERE id = ?`,
    [who, id],
  )
const markOpen = (database: Database, id: number) =>
  change(
    database,
    `UPDATE template_comments
     SET closed_at = NULL, closed_by = NULL
     WHERE id = ?`,
    [id],
  )
