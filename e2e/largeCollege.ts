import type { Pool } from 'mysql2/promise'
import { makeRoster, rosterCsv } from '@wickerframe/demo'
import { readRoster } from '@wickerframe/interchange'
import { importRoster } from '@wickerframe/server/roster/roster'
import { change, inTransaction, rowsOf, type Database } from '@wickerframe/storage'

/** What is kept of a course that was read, deployed and checked. */
const keptOfCourse = [
  'snapshots',
  'course_bodies',
  'course_bases',
  'deployments',
  'check_results',
  'readiness_changes',
  'finding_spells',
  'course_edits',
]

const copyRows = async (database: Database, table: string): Promise<void> => {
  const columns = (
    await rowsOf<{ name: string }>(
      database,
      `SELECT COLUMN_NAME AS name
       FROM information_schema.COLUMNS
       WHERE TABLE_SCHEMA = DATABASE()
         AND TABLE_NAME = ?
         AND COLUMN_NAME <> 'course_id'
         AND EXTRA = ''`,
      [table],
    )
  ).map(({ name }) => name)
  // Of each there is one only.
  const valueOf = (name: string) => (name === 'idempotency_key' ? 'UUID()' : `kept.${name}`)
  await change(
    database,
    `INSERT INTO ${table} (course_id, ${columns.join(', ')})
     SELECT like_others.course_id, ${columns.map(valueOf).join(', ')}
     FROM like_others
     JOIN ${table} AS kept ON kept.course_id = like_others.source_id`,
  )
}

/**
 * Lets the college grow to so many teaching courses: whatever the roster adds stands as one of the courses stands that were
 * checked already, as if they had been read, deployed and checked one by one, which takes an hour.
 */
export const growTo = async (pool: Pool, courses: number): Promise<void> => {
  const read = readRoster(Buffer.from(rosterCsv(makeRoster(courses))))
  await importRoster(pool, read.courses, () => ({}), 'administrator@kestrelsound.example')
  await inTransaction(pool, async (database) => {
    await change(database, 'DROP TEMPORARY TABLE IF EXISTS like_others')
    await change(
      database,
      `CREATE TEMPORARY TABLE like_others AS
      SELECT fresh.id AS course_id, source.id AS source_id
      FROM (
        SELECT id, ROW_NUMBER() OVER (ORDER BY id) AS place
        FROM courses
        WHERE template_id IS NULL
          AND status = 'teaching'
          AND id NOT IN (SELECT course_id FROM snapshots)
      ) AS fresh
      JOIN (
        SELECT id, ROW_NUMBER() OVER (ORDER BY id) AS place, COUNT(*) OVER () AS many
        FROM courses
        WHERE id IN (SELECT course_id FROM check_results)
      ) AS source ON fresh.place % source.many = source.place - 1`,
    )
    for (const table of keptOfCourse) await copyRows(database, table)
    await change(
      database,
      `UPDATE courses
       JOIN like_others ON like_others.course_id = courses.id
       JOIN courses AS source ON source.id = like_others.source_id
       SET courses.template_id = source.template_id, courses.version = source.version`,
    )
  })
}
