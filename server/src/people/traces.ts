import { change, rowsOf, type Database } from '@wickerframe/storage'

/** Where an address stands that says who somebody was who did something. */
export interface Trace {
  table: string
  /** Holds the address. */
  column: string
  /** What else of such a row is told to the person themselves. */
  tells: readonly string[]
}

/**
 * Every column that says who: what is kept about somebody is read here, and whoever leaves is taken out here. A test walks all
 * tables for what is missing.
 */
export const traces: readonly Trace[] = [
  {
    table: 'template_versions',
    column: 'released_by',
    tells: ['template_id', 'number', 'released_at', 'note'],
  },
  {
    table: 'retired_versions',
    column: 'retired_by',
    tells: ['template_id', 'number', 'retired_at'],
  },
  { table: 'version_uses', column: 'decided_by', tells: ['department', 'modality', 'decided_at'] },
  {
    table: 'template_comments',
    column: 'written_by',
    tells: ['template_id', 'text', 'written_at'],
  },
  { table: 'template_comments', column: 'closed_by', tells: ['template_id', 'text', 'closed_at'] },
  {
    table: 'standing_rules',
    column: 'created_by',
    tells: ['department', 'modality', 'created_at'],
  },
  { table: 'library_entries', column: 'saved_by', tells: ['kind', 'title', 'saved_at'] },
  { table: 'course_people', column: 'email', tells: ['course_id', 'name', 'duty'] },
  { table: 'module_owners', column: 'email', tells: ['course_id', 'module'] },
  { table: 'course_decisions', column: 'decided_by', tells: ['course_id', 'field', 'decided_at'] },
  { table: 'merges', column: 'merged_by', tells: ['course_id', 'into_id', 'merged_at'] },
  { table: 'not_this_week', column: 'said_by', tells: ['course_id', 'instance', 'said_at'] },
  { table: 'runs', column: 'created_by', tells: ['id', 'kind', 'title', 'created_at'] },
  { table: 'schedules', column: 'made_by', tells: ['id', 'pattern', 'department', 'made_at'] },
  { table: 'rehearsals', column: 'created_by', tells: ['run_id', 'course_id', 'created_at'] },
  { table: 'deployments', column: 'deployed_by', tells: ['course_id', 'number', 'deployed_at'] },
  { table: 'waivers', column: 'asked_by', tells: ['course_id', 'rule', 'reason', 'asked_at'] },
  { table: 'waivers', column: 'decided_by', tells: ['course_id', 'rule', 'answer', 'decided_at'] },
  { table: 'attestations', column: 'given_by', tells: ['course_id', 'rule', 'words', 'given_on'] },
  {
    table: 'joins_by_hand',
    column: 'said_by',
    tells: ['course_id', 'expected', 'found', 'said_at'],
  },
  { table: 'follow_ups', column: 'owner', tells: ['course_id', 'message', 'note', 'raised_at'] },
  {
    table: 'follow_ups',
    column: 'raised_by',
    tells: ['course_id', 'message', 'note', 'raised_at'],
  },
  {
    table: 'follow_ups',
    column: 'answered_by',
    tells: ['course_id', 'message', 'answer', 'answered_at'],
  },
  { table: 'one_time_links', column: 'made_by', tells: ['purpose', 'expires_at'] },
  { table: 'account_requests', column: 'answered_by', tells: ['answered_at', 'answer'] },
  { table: 'audit', column: 'who', tells: ['at', 'what', 'subject'] },
]

/** Rows of one trace that name somebody. */
export const rowsNaming = (
  database: Database,
  { table, column, tells }: Trace,
  email: string,
): Promise<Record<string, unknown>[]> =>
  rowsOf(
    database,
    `SELECT ${tells.join(', ')}
     FROM ${table}
     WHERE ${column} = ?`,
    [email],
  )

/** Writes another name where an address stands. @returns in how many rows */
export const renameIn = async (
  database: Database,
  { table, column }: Trace,
  email: string,
  as: string,
): Promise<number> =>
  (
    await change(
      database,
      `UPDATE ${table}
       SET ${column} = ?
       WHERE ${column} = ?`,
      [as, email],
    )
  ).affected
